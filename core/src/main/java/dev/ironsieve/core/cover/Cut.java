package dev.ironsieve.core.cover;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.Ints;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/**
 * One axis of a question about a target box and candidates, cut down to what the question tells
 * apart: the labels of the target's side fall into classes that the same candidates hold, so that a
 * side becomes a few bits. Classes are told apart by comparing the real sets, not their hashes.
 */
final class Cut {
  private static final int[] ONE_PIECE = {};

  /** Some label of each class. */
  final int[] labels;

  /** 64-bit words that one side takes. */
  final int words;

  private final IntSet all;
  private final int[] starts; // of pieces, which are ranges of labels; none if all is one class
  private final int[] classOf; // by piece
  private final int[] partialOf; // by candidate: which partial side it has, or -1 for all
  private final long[][] packed; // by partial side: the classes that it has
  private final long[] full;

  /** O(cuts · (log cuts + candidates / 64)). */
  Cut(int axis, Box target, List<Box> candidates) {
    all = target.side(axis);
    partialOf = new int[candidates.size()];
    List<IntSet> partial = partial(axis, candidates);
    if (partial.isEmpty()) {
      starts = ONE_PIECE;
      classOf = ONE_PIECE;
      labels = new int[] {all.min()};
      words = 1;
      full = new long[] {1};
      packed = new long[0][];
      return;
    }
    starts = starts(all, partial);
    classOf = new int[starts.length];
    long[][] held = held(partial);
    Map<Row, Integer> classes = HashMap.newHashMap(starts.length);
    int[] some = new int[starts.length];
    for (int piece = 0; piece < starts.length; piece++) {
      int fresh = classes.size();
      Integer known = classes.putIfAbsent(new Row(held[piece]), fresh);
      classOf[piece] = known == null ? fresh : known;
      if (known == null) {
        some[fresh] = starts[piece];
      }
    }
    labels = Arrays.copyOf(some, classes.size());
    words = (labels.length + 63) >> 6;
    full = new long[words];
    for (int i = 0; i < labels.length; i++) {
      full[i >> 6] |= 1L << i;
    }
    packed = new long[partial.size()][words];
    for (Map.Entry<Row, Integer> entry : classes.entrySet()) {
      int c = entry.getValue();
      long[] row = entry.getKey().bits;
      for (int word = 0; word < row.length; word++) {
        for (long left = row[word]; left != 0; left &= left - 1) {
          packed[(word << 6) + Long.numberOfTrailingZeros(left)][c >> 6] |= 1L << c;
        }
      }
    }
  }

  /** The sides that do not hold all of the target's, each once. */
  private List<IntSet> partial(int axis, List<Box> candidates) {
    List<IntSet> partial = new ArrayList<>();
    Map<IntSet, Integer> known = null;
    for (int i = 0; i < partialOf.length; i++) {
      IntSet side = candidates.get(i).side(axis);
      partialOf[i] = -1;
      if (side == all || side.containsAll(all)) {
        continue;
      }
      if (known == null) {
        known = new IdentityHashMap<>();
      }
      Integer place = known.putIfAbsent(side, partial.size());
      partialOf[i] = place == null ? partial.size() : place;
      if (place == null) {
        partial.add(side);
      }
    }
    return partial;
  }

  /** For each piece a bit for each partial side that holds it. */
  private long[][] held(List<IntSet> partial) {
    long[][] held = new long[starts.length][(partial.size() + 63) >> 6];
    for (int i = 0; i < partial.size(); i++) {
      IntSet side = partial.get(i);
      int word = i >> 6;
      long bit = 1L << i;
      int piece = 0; // the next that may be in the side
      for (int at = side.interval(all.min()); at < side.intervals(); at++) {
        int first = side.first(at);
        if (first > all.max()) {
          break;
        }
        if (piece < starts.length && starts[piece] < first) {
          piece = firstFrom(starts, piece, first);
        }
        for (int last = side.last(at); piece < starts.length && starts[piece] <= last; piece++) {
          held[piece][word] |= bit;
        }
      }
    }
    return held;
  }

  /** The first of {@code starts}, from a place on, that is not below {@code label}. */
  private static int firstFrom(int[] starts, int from, int label) {
    int at = Arrays.binarySearch(starts, from, starts.length, label);
    return at >= 0 ? at : -at - 1;
  }

  private record Row(long[] bits) {
    @Override
    public boolean equals(Object o) {
      return o instanceof Row other && Arrays.equals(bits, other.bits);
    }

    @Override
    public int hashCode() {
      return Arrays.hashCode(bits);
    }
  }

  /**
   * Lowest labels of the pieces of {@code all} that no side of {@code partial} begins or ends in.
   */
  private static int[] starts(IntSet all, List<IntSet> partial) {
    int[] found = new int[all.intervals() + 16];
    int count = 0;
    for (int i = 0; i < all.intervals(); i++) {
      found[count++] = all.first(i);
    }
    for (IntSet side : partial) {
      int at = 0; // the first interval of all that ends at or behind the label in question
      for (int i = side.interval(all.min()); i < side.intervals(); i++) {
        int first = side.first(i);
        int behind = side.last(i) + 1;
        if (first > all.max()) {
          break;
        }
        if (count + 2 > found.length) {
          found = Arrays.copyOf(found, count * 2);
        }
        at = all.last(at) < first ? all.interval(first) : at;
        if (all.first(at) <= first) {
          found[count++] = first;
        }
        if (behind > all.max()) {
          break;
        }
        at = all.last(at) < behind ? all.interval(behind) : at;
        if (all.first(at) <= behind) {
          found[count++] = behind;
        }
      }
    }
    return Ints.distinct(found, count);
  }

  /** The labels of the classes whose bits are set from word {@code offset} of {@code packed} on. */
  IntSet side(long[] packed, int offset) {
    if (starts.length == 0) {
      return packed[offset] == 0 ? IntSet.EMPTY : all;
    }
    IntSet.Builder out = new IntSet.Builder();
    int interval = 0;
    for (int piece = 0; piece < starts.length; piece++) {
      while (all.last(interval) < starts[piece]) {
        interval++;
      }
      int last = all.last(interval);
      if (piece + 1 < starts.length) {
        last = Math.min(last, starts[piece + 1] - 1);
      }
      int c = classOf[piece];
      if ((packed[offset + (c >> 6)] >> c & 1) != 0) {
        out.addInOrder(starts[piece], last);
      }
    }
    IntSet side = out.build();
    return side.equals(all) ? all : side;
  }

  /** The classes of the target's side. */
  long[] full() {
    return full;
  }

  /** The classes of a candidate's side that are in the target's. */
  long[] bits(int candidate) {
    int partial = partialOf[candidate];
    return partial < 0 ? full : packed[partial];
  }
}
