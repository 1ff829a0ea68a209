package dev.ironsieve.core.space;

import dev.ironsieve.core.sets.IntSet;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;

/**
 * One dimension of the space: its values, grouped into classes that no rule tells apart, laid out
 * on a line of codes.
 *
 * <p>A class is a run of codes. There is room between them: a class that a later rule cuts in two
 * gives half of its codes away, and every set that was made before stays right as it is.
 *
 * <pre>
 *   codes   0 ......... 8 ......... 16 ........ 24 ....
 *   classes  [    a     ][    b     ][    c     ][
 *   cut b    [    a     ][ b' ][ b" ][    c     ][        a set {b, c} is 8..23 before and after
 * </pre>
 *
 * A class is named by its lowest code.
 */
abstract sealed class Axis permits EndpointAxis, NumberAxis, SymbolAxis {
  /** Codes are 0 to CODES - 1; the last belongs to no class. */
  static final int CODES = 1 << 30;

  private int[] cuts; // lowest code of each class, ascending
  private int classes;
  private int room; // codes of each class; 0 as soon as one has others
  private int step; // codes of each class before any is split
  private boolean full; // whether there was no room for a class
  private IntSet all;
  private final Map<IntSet, IntSet> interned = new HashMap<>();

  /** Whether a class could not be cut in two for want of room. */
  final boolean isFull() {
    return full;
  }

  /** Spreads {@code classes} classes evenly over the codes. */
  final void assignCodes(int classes) {
    this.classes = classes;
    room = (CODES - 1) / Math.max(1, classes);
    step = room;
    cuts = new int[Math.max(1, classes)];
    for (int i = 0; i < classes; i++) {
      cuts[i] = i * room;
    }
    all = intern(classes == 0 ? IntSet.EMPTY : IntSet.range(0, classes * room - 1));
  }

  /** The one object that stands for all sets of codes that are equal to this. */
  final IntSet intern(IntSet codes) {
    IntSet known = interned.putIfAbsent(codes, codes);
    return known == null ? codes : known;
  }

  /** Number of classes. */
  final int classes() {
    return classes;
  }

  /** Codes of each class as they were spread, before any was split. */
  final int step() {
    return step;
  }

  /** Every code that belongs to a class. */
  final IntSet all() {
    return all;
  }

  /** Lowest code of the class with {@code rank} classes below it; for rank = classes, the end. */
  final int code(int rank) {
    return rank < classes ? cuts[rank] : classes == 0 ? 0 : all.max() + 1;
  }

  /**
   * The number of classes that begin below {@code code}; O(log classes), and O(1) before any is
   * split.
   */
  final int rank(int code) {
    if (room > 0) {
      return Math.min(classes, (code + room - 1) / room);
    }
    int at = Arrays.binarySearch(cuts, 0, classes, code);
    return at >= 0 ? at : -at - 1;
  }

  /** The class that holds {@code code}, by its rank. */
  final int rankOf(int code) {
    if (room > 0) {
      return Math.min(classes - 1, code / room);
    }
    int at = Arrays.binarySearch(cuts, 0, classes, code);
    return at >= 0 ? at : -at - 2;
  }

  /** The number of classes in a set; O(intervals · log classes). */
  final long count(IntSet set) {
    long count = 0;
    for (int i = 0; i < set.intervals(); i++) {
      count += rank(set.last(i) + 1) - rank(set.first(i));
    }
    return count;
  }

  /** The class with {@code rank} classes of the set below it. */
  final int pick(IntSet set, long rank) {
    long left = rank;
    for (int i = 0; i < set.intervals(); i++) {
      int from = rank(set.first(i));
      int width = rank(set.last(i) + 1) - from;
      if (left < width) {
        return cuts[from + (int) left];
      }
      left -= width;
    }
    throw new IllegalArgumentException("rank " + rank + " in a set of " + count(set));
  }

  /** Lowest codes of classes whose values do not continue those of the class before. */
  int[] borders() {
    return classes == 0 ? new int[0] : new int[] {0};
  }

  /**
   * Cuts the class of {@code rank} in two.
   *
   * @return the lowest code of the upper half, or -1 if there is no room for one
   */
  final int split(int rank) {
    int from = cuts[rank];
    int end = code(rank + 1);
    int cut = from + (end - from) / 2;
    if (cut == from) {
      full = true;
      return -1;
    }
    room = 0;
    if (classes == cuts.length) {
      cuts = Arrays.copyOf(cuts, classes + classes / 2 + 16);
    }
    System.arraycopy(cuts, rank + 1, cuts, rank + 2, classes - rank - 1);
    cuts[rank + 1] = cut;
    classes++;
    return cut;
  }
}
