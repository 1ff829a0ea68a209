package dev.ironsieve.core.space;

import dev.ironsieve.core.sets.IntSet;
import java.util.BitSet;
import java.util.Collection;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntUnaryOperator;
import java.util.stream.IntStream;

/**
 * A dimension whose values are numbered names. A class holds all values that are members of the
 * same sets.
 */
final class SymbolAxis extends Axis {
  private final int values;
  private final int[] codeOf; // per value the lowest code of its class
  private final Map<Integer, Integer> someValue = new HashMap<>(); // by class code
  private final Map<Integer, Integer> size = new HashMap<>(); // values in each class, by its code
  private final Map<IntSet, IntSet> coded = new IdentityHashMap<>();

  /**
   * @param values number of values, which are 0 to values - 1
   * @param sets the sets of values that rules tell apart
   */
  SymbolAxis(int values, Collection<IntSet> sets) {
    this.values = values;
    Partition partition = new Partition(values, sets);
    assignCodes(partition.classes());
    codeOf = new int[values];
    for (int value = 0; value < values; value++) {
      codeOf[value] = code(partition.classOf(value));
      someValue.putIfAbsent(codeOf[value], value);
      size.merge(codeOf[value], 1, Integer::sum);
    }
    for (IntSet set : sets) {
      coded.computeIfAbsent(set, s -> compute(s, partition::classOf));
    }
  }

  /**
   * @param sets each object once
   * @param known of another state over the same values, or null; if it was made for the same sets
   *     it is returned
   */
  static SymbolAxis of(int values, Set<IntSet> sets, Axis known) {
    return known instanceof SymbolAxis line && line.coded.keySet().equals(sets)
        ? line
        : new SymbolAxis(values, sets);
  }

  /** The codes of a set of values; empty if there is no room to tell it apart. */
  Optional<IntSet> codesIfRoom(IntSet set) {
    IntSet known = coded.get(set);
    if (known == null && separated(set)) {
      known = compute(set, value -> rankOf(codeOf[value]));
      coded.put(set, known);
    }
    return Optional.ofNullable(known);
  }

  /** The codes of a set of values whose classes exist, or for which there is room. */
  IntSet codes(IntSet set) {
    return codesIfRoom(set).orElseThrow(() -> new IllegalStateException("no room for a set"));
  }

  /** Gives the members of each class that the set cuts in two a class of their own. */
  private boolean separated(IntSet set) {
    Map<Integer, int[]> held = new HashMap<>();
    set.forEach(value -> held.computeIfAbsent(codeOf[value], l -> new int[1])[0]++);
    for (Map.Entry<Integer, int[]> entry : held.entrySet()) {
      int code = entry.getKey();
      int inside = entry.getValue()[0];
      if (inside == size.get(code)) {
        continue;
      }
      int fresh = split(rankOf(code));
      if (fresh < 0) {
        return false;
      }
      set.forEach(value -> codeOf[value] = codeOf[value] == code ? fresh : codeOf[value]);
      size.put(fresh, inside);
      size.merge(code, -inside, Integer::sum);
      someValue.put(fresh, firstWith(fresh));
      someValue.put(code, firstWith(code));
    }
    return true;
  }

  private int firstWith(int code) {
    for (int value = 0; value < values; value++) {
      if (codeOf[value] == code) {
        return value;
      }
    }
    throw new IllegalStateException("no value in class " + code);
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
      out.addInOrder(code(from), code(to) - 1);
      from = ranks.nextSetBit(to);
    }
    return intern(out.build());
  }

  /** The class of a value. */
  int codeOf(int value) {
    return codeOf[value];
  }

  /** The codes of every class with one of some values. */
  IntSet touching(IntSet some) {
    return compute(some, value -> rankOf(codeOf[value]));
  }

  /** A value of the class that holds {@code code}: the lowest. */
  int value(int code) {
    return someValue.get(code(rankOf(code)));
  }

  /** The lowest value of the classes from code {@code from} to {@code last}; O(classes). */
  int lowest(int from, int last) {
    int end = rank(last + 1);
    int lowest = values;
    for (int rank = rank(from); rank < end; rank++) {
      lowest = Math.min(lowest, someValue.get(code(rank)));
    }
    return lowest;
  }

  /** Number of values whose classes are in a set of codes; O(classes of the set). */
  int size(IntSet codes) {
    int sum = 0;
    for (int i = 0; i < codes.intervals(); i++) {
      int end = rank(codes.last(i) + 1);
      for (int rank = rank(codes.first(i)); rank < end; rank++) {
        sum += size.get(code(rank));
      }
    }
    return sum;
  }

  /** The values whose classes are in a set of codes, ascending; O(values) for all of them. */
  IntStream values(IntSet codes) {
    return IntStream.range(0, values).filter(value -> codes.contains(codeOf[value]));
  }
}
