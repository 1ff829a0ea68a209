package dev.ironsieve.core.space;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.Ints;
import java.util.Arrays;
import java.util.Collection;
import java.util.IdentityHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** A dimension whose values are integers: services, source ports. A class is a run of values. */
final class NumberAxis extends Axis {
  private final IntSet feasible;
  private int[] starts; // lowest value of each class, ascending
  private final Map<IntSet, IntSet> coded = new IdentityHashMap<>();

  /**
   * @param feasible every value that can occur
   * @param sets the sets that rules tell apart
   */
  NumberAxis(IntSet feasible, Collection<IntSet> sets) {
    this.feasible = feasible;
    starts = new int[Math.max(16, 2 * sets.size() + 1)];
    starts[0] = feasible.min();
    int count = 1;
    for (IntSet set : sets) {
      int[] cuts = cuts(set);
      if (count + cuts.length > starts.length) {
        starts = Arrays.copyOf(starts, count + count / 2 + cuts.length);
      }
      System.arraycopy(cuts, 0, starts, count, cuts.length);
      count += cuts.length;
    }
    starts = Ints.distinct(starts, count);
    assignCodes(starts.length);
    for (IntSet set : sets) {
      coded.computeIfAbsent(set, this::compute);
    }
  }

  /**
   * @param sets each object once
   * @param known of another state over the same values, or null; if it was made for the same sets
   *     it is returned
   */
  static NumberAxis of(IntSet feasible, Set<IntSet> sets, Axis known) {
    return known instanceof NumberAxis line && line.coded.keySet().equals(sets)
        ? line
        : new NumberAxis(feasible, sets);
  }

  /**
   * Where classes have to begin so that a set is made of whole ones: where it begins, and behind
   * where it ends, if the next value that can occur is not in it again.
   */
  private int[] cuts(IntSet set) {
    IntSet inside = set.intersect(feasible);
    int[] out = new int[2 * inside.intervals() + 1];
    int count = 0;
    int behind = feasible.min(); // where the last class behind the set begins
    for (int i = 0; i < inside.intervals(); i++) {
      if (inside.first(i) != behind) {
        out[count++] = behind;
        out[count++] = inside.first(i);
      }
      behind = feasibleFrom(inside.last(i) + 1);
    }
    if (behind >= 0) {
      out[count++] = behind;
    }
    return Arrays.copyOf(out, count);
  }

  /** The lowest value that can occur and is not below {@code value}, or -1. */
  private int feasibleFrom(int value) {
    int at = feasible.interval(value);
    return at == feasible.intervals() ? -1 : Math.max(value, feasible.first(at));
  }

  /** The codes of a set of values; empty if there is no room to tell it apart. */
  Optional<IntSet> codesIfRoom(IntSet set) {
    IntSet known = coded.get(set);
    if (known == null && separated(set)) {
      known = compute(set);
      coded.put(set, known);
    }
    return Optional.ofNullable(known);
  }

  /** The codes of a set of values whose classes exist, or for which there is room. */
  IntSet codes(IntSet set) {
    return codesIfRoom(set).orElseThrow(() -> new IllegalStateException("no room for a set"));
  }

  private boolean separated(IntSet set) {
    for (int value : cuts(set)) {
      if (!beginAt(value)) {
        return false;
      }
    }
    return true;
  }

  private boolean beginAt(int value) {
    int at = Arrays.binarySearch(starts, 0, classes(), value);
    if (at >= 0) {
      return true;
    }
    int rank = -at - 2;
    if (split(rank) < 0) {
      return false;
    }
    int count = classes();
    int[] grown = count > starts.length ? Arrays.copyOf(starts, count + count / 2 + 16) : starts;
    System.arraycopy(grown, rank + 1, grown, rank + 2, count - rank - 2);
    grown[rank + 1] = value;
    starts = grown;
    return true;
  }

  private IntSet compute(IntSet set) {
    if (set == feasible || set.containsAll(feasible)) {
      return all();
    }
    IntSet.Builder out = new IntSet.Builder();
    IntSet inside = set.intersect(feasible);
    for (int i = 0; i < inside.intervals(); i++) {
      int from = rankOfValue(inside.first(i));
      int to = rankOfValue(inside.last(i));
      out.addInOrder(code(from), code(to + 1) - 1);
    }
    return intern(out.build());
  }

  private int rankOfValue(int value) {
    int at = Arrays.binarySearch(starts, 0, classes(), value);
    return at >= 0 ? at : -at - 2;
  }

  /** The class of a value, or -1 if it cannot occur; O(log classes). */
  int codeOf(int value) {
    return feasible.contains(value) ? code(rankOfValue(value)) : -1;
  }

  /**
   * A value of the class that holds {@code code}: the first of {@code preferred} that is one, or
   * else its lowest.
   */
  int value(int code, int... preferred) {
    int rank = rankOf(code);
    for (int value : preferred) {
      if (feasible.contains(value) && rankOfValue(value) == rank) {
        return value;
      }
    }
    return starts[rank];
  }

  /** The codes of every class with some value of a range; bounds are inclusive. */
  IntSet touching(int first, int last) {
    IntSet inside = IntSet.range(first, last).intersect(feasible);
    if (inside.isEmpty()) {
      return IntSet.EMPTY;
    }
    int from = rankOfValue(inside.min());
    int to = rankOfValue(inside.max());
    return intern(IntSet.range(code(from), code(to + 1) - 1));
  }

  /**
   * A value of the class that holds {@code code} and of a range, which has some: the first of
   * {@code preferred} that is one, or else the lowest.
   */
  int valueWithin(int code, int first, int last, int... preferred) {
    int rank = rankOf(code);
    for (int value : preferred) {
      if (value >= first && value <= last && feasible.contains(value)) {
        if (rankOfValue(value) == rank) {
          return value;
        }
      }
    }
    return Math.max(starts[rank], first);
  }

  /** The values whose classes make up a set of codes. */
  IntSet values(IntSet codes) {
    IntSet.Builder out = new IntSet.Builder();
    for (int i = 0; i < codes.intervals(); i++) {
      int end = rank(codes.last(i) + 1);
      int last = end < classes() ? starts[end] - 1 : feasible.max();
      out.addInOrder(starts[rankOf(codes.first(i))], last);
    }
    return out.build().intersect(feasible);
  }
}
