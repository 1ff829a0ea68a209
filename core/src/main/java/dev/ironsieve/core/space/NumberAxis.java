package dev.ironsieve.core.space;

import dev.ironsieve.core.sets.IntSet;
import java.util.Arrays;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.stream.IntStream;

/** A dimension whose values are integers: services, source ports. */
public final class NumberAxis implements Axis {
  private final IntSet feasible;
  private final int[] starts; // first value of each piece, ascending
  private final int[] lasts; // last value of each piece
  private final Map<IntSet, IntSet> pieceSets = new LinkedHashMap<>();
  private final Partition partition;

  /**
   * @param feasible every value that can occur
   * @param sets the sets that rules tell apart
   */
  NumberAxis(IntSet feasible, Collection<IntSet> sets) {
    this.feasible = feasible;
    int[] cuts = cuts(sets);
    int capacity = feasible.intervals() + cuts.length;
    int[] first = new int[capacity];
    int[] last = new int[capacity];
    int pieces = 0;
    int cut = 0;
    for (int i = 0; i < feasible.intervals(); i++) {
      int start = feasible.first(i);
      while (cut < cuts.length && cuts[cut] <= start) {
        cut++;
      }
      for (; cut < cuts.length && cuts[cut] <= feasible.last(i); cut++) {
        first[pieces] = start;
        last[pieces++] = cuts[cut] - 1;
        start = cuts[cut];
      }
      first[pieces] = start;
      last[pieces++] = feasible.last(i);
    }
    starts = Arrays.copyOf(first, pieces);
    lasts = Arrays.copyOf(last, pieces);
    sets.forEach(set -> pieceSets.computeIfAbsent(set, this::pieces));
    partition = new Partition(pieces, pieceSets.values());
  }

  private static int[] cuts(Collection<IntSet> sets) {
    return sets.stream()
        .distinct()
        .flatMapToInt(
            set ->
                IntStream.range(0, set.intervals())
                    .flatMap(i -> IntStream.of(set.first(i), set.last(i) + 1)))
        .sorted()
        .distinct()
        .toArray();
  }

  private IntSet pieces(IntSet set) {
    IntSet.Builder out = new IntSet.Builder();
    for (int i = 0; i < set.intervals(); i++) {
      int from = Arrays.binarySearch(starts, set.first(i));
      from = from >= 0 ? from : -from - 1;
      int to = Arrays.binarySearch(lasts, set.last(i));
      to = to >= 0 ? to : -to - 2;
      if (from <= to) {
        out.addInOrder(from, to);
      }
    }
    return out.build();
  }

  @Override
  public int classes() {
    return partition.classes();
  }

  /** The classes that make up a set, which must be one that this was built for. */
  IntSet classes(IntSet set) {
    return partition.classes(pieceSets.get(set));
  }

  /** A value of class {@code c}: the first of {@code preferred} that is one, or else its lowest. */
  int value(int c, int... preferred) {
    for (int value : preferred) {
      if (feasible.contains(value) && partition.classOf(piece(value)) == c) {
        return value;
      }
    }
    return starts[partition.firstPiece(c)];
  }

  /** The classes of feasible values. */
  int[] classesOf(int... values) {
    return IntStream.of(values).map(value -> partition.classOf(piece(value))).toArray();
  }

  private int piece(int value) {
    int at = Arrays.binarySearch(starts, value);
    return at >= 0 ? at : -at - 2;
  }
}
