package dev.ironsieve.core.space;

import dev.ironsieve.core.sets.IntSet;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collection;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.Map;
import java.util.Set;
import java.util.function.IntUnaryOperator;
import java.util.stream.IntStream;

/**
 * A dimension whose values are numbered names. A class holds all values that are members of the
 * same sets.
 */
final class SymbolLine extends Line {
  private final int values;
  private final int[] labelOf; // per value the lowest label of its class
  private final Map<Integer, Integer> someValue = new HashMap<>(); // by class label
  private final Map<Integer, Integer> size = new HashMap<>(); // values in each class, by its label
  private final Map<IntSet, IntSet> labelled = new IdentityHashMap<>();

  /**
   * @param values number of values, which are 0 to values - 1
   * @param sets the sets of values that rules tell apart
   */
  SymbolLine(int values, Collection<IntSet> sets) {
    this.values = values;
    Partition partition = new Partition(values, sets);
    spread(partition.classes());
    labelOf = new int[values];
    for (int value = 0; value < values; value++) {
      labelOf[value] = label(partition.classOf(value));
      someValue.putIfAbsent(labelOf[value], value);
      size.merge(labelOf[value], 1, Integer::sum);
    }
    for (IntSet set : sets) {
      labelled.computeIfAbsent(set, s -> compute(s, partition::classOf));
    }
  }

  /**
   * @param sets each object once
   * @param known of another state over the same values, or null; if it was made for the same sets
   *     it is returned
   */
  static SymbolLine of(int values, Set<IntSet> sets, Line known) {
    return known instanceof SymbolLine line && line.labelled.keySet().equals(sets)
        ? line
        : new SymbolLine(values, sets);
  }

  private SymbolLine(SymbolLine other) {
    values = other.values;
    spread(other.classes());
    labelOf = Arrays.stream(other.labelOf).map(label -> here(label, other)).toArray();
    other.someValue.forEach((label, value) -> someValue.put(here(label, other), value));
    other.size.forEach((label, count) -> size.put(here(label, other), count));
    other.labelled.forEach((set, labels) -> labelled.put(set, here(labels, other)));
  }

  @Override
  SymbolLine again() {
    return new SymbolLine(this);
  }

  /** The labels of a set of values; null if there is no room to tell it apart. */
  IntSet labels(IntSet set) {
    IntSet known = labelled.get(set);
    if (known == null && separated(set)) {
      known = compute(set, value -> rankOf(labelOf[value]));
      labelled.put(set, known);
    }
    return known;
  }

  /** Gives the members of each class that the set cuts in two a class of their own. */
  private boolean separated(IntSet set) {
    Map<Integer, int[]> held = new HashMap<>();
    set.forEach(value -> held.computeIfAbsent(labelOf[value], l -> new int[1])[0]++);
    for (Map.Entry<Integer, int[]> entry : held.entrySet()) {
      int label = entry.getKey();
      int inside = entry.getValue()[0];
      if (inside == size.get(label)) {
        continue;
      }
      int fresh = split(rankOf(label));
      if (fresh < 0) {
        return false;
      }
      set.forEach(value -> labelOf[value] = labelOf[value] == label ? fresh : labelOf[value]);
      size.put(fresh, inside);
      size.merge(label, -inside, Integer::sum);
      someValue.put(fresh, firstWith(fresh));
      someValue.put(label, firstWith(label));
    }
    return true;
  }

  private int firstWith(int label) {
    for (int value = 0; value < values; value++) {
      if (labelOf[value] == label) {
        return value;
      }
    }
    throw new IllegalStateException("no value in class " + label);
  }

  private IntSet compute(IntSet set, IntUnaryOperator rankOfValue) {
    if (set.size() == values) {
      return all();
    }
    BitSet ranks = new BitSet(classes());
    set.forEach(value -> ranks.set(rankOfValue.applyAsInt(value)));
    IntSet.Builder out = new IntSet.Builder();
    for (int from = ranks.nextSetBit(0); from >= 0; ) {
      int to = ranks.nextClearBit(from);
      out.addInOrder(label(from), label(to) - 1);
      from = ranks.nextSetBit(to);
    }
    return intern(out.build());
  }

  /** The class of a value. */
  int labelOf(int value) {
    return labelOf[value];
  }

  /** The labels of every class with one of some values. */
  IntSet touching(IntSet some) {
    return compute(some, value -> rankOf(labelOf[value]));
  }

  /** A value of the class that holds {@code label}: the lowest. */
  int value(int label) {
    return someValue.get(label(rankOf(label)));
  }

  /** The lowest value of the classes from label {@code from} to {@code last}; O(classes). */
  int lowest(int from, int last) {
    int end = rank(last + 1);
    int lowest = values;
    for (int rank = rank(from); rank < end; rank++) {
      lowest = Math.min(lowest, someValue.get(label(rank)));
    }
    return lowest;
  }

  /** Number of values whose classes are in a set of labels; O(classes of the set). */
  int size(IntSet labels) {
    int sum = 0;
    for (int i = 0; i < labels.intervals(); i++) {
      int end = rank(labels.last(i) + 1);
      for (int rank = rank(labels.first(i)); rank < end; rank++) {
        sum += size.get(label(rank));
      }
    }
    return sum;
  }

  /** The values whose classes are in a set of labels, ascending; O(values) for all of them. */
  IntStream values(IntSet labels) {
    return IntStream.range(0, values).filter(value -> labels.contains(labelOf[value]));
  }
}
