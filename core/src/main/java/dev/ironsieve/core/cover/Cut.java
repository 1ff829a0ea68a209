package dev.ironsieve.core.cover;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * One axis of a question about a target box and candidates, cut down to what the question tells
 * apart: the labels of the target's side fall into classes that the same candidates hold, so that a
 * side becomes a few bits. Classes are told apart by comparing the real sets, not their hashes.
 */
final class Cut {
  /** Some label of each class. */
  final int[] labels;

  /** 64-bit words that one side takes. */
  final int words;

  private final IntSet all;
  private final int[] starts; // of pieces, which are ranges of labels
  private final int[] classOf; // by piece
  private final Map<IntSet, long[]> sides = new HashMap<>();

  /** O(cuts · (log cuts + candidates / 64)). */
  Cut(int axis, Box target, List<Box> candidates) {
    all = target.side(axis);
    List<IntSet> partial = new ArrayList<>();
    for (Box candidate : candidates) {
      IntSet side = candidate.side(axis);
      if (side != all && !sides.containsKey(side)) {
        sides.put(side, null);
        if (!side.containsAll(all)) {
          partial.add(side);
        }
      }
    }
    starts = starts(all, partial);
    classOf = new int[starts.length];
    int rowWords = (partial.size() + 63) >> 6;
    long[][] held = new long[starts.length][rowWords];
    for (int i = 0; i < partial.size(); i++) {
      IntSet side = partial.get(i);
      int word = i >> 6;
      long bit = 1L << i;
      for (int at = side.interval(all.min()); at < side.intervals(); at++) {
        if (side.first(at) > all.max()) {
          break;
        }
        int piece = firstFrom(starts, side.first(at));
        for (; piece < starts.length && starts[piece] <= side.last(at); piece++) {
          held[piece][word] |= bit;
        }
      }
    }
    Map<Row, Integer> classes = new HashMap<>();
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
    long[] full = new long[words];
    for (int i = 0; i < labels.length; i++) {
      full[i >> 6] |= 1L << i;
    }
    sides.replaceAll((side, none) -> full);
    sides.put(all, full);
    long[][] packed = new long[partial.size()][words];
    for (Map.Entry<Row, Integer> entry : classes.entrySet()) {
      int c = entry.getValue();
      long[] row = entry.getKey().bits;
      for (int word = 0; word < row.length; word++) {
        for (long left = row[word]; left != 0; left &= left - 1) {
          packed[(word << 6) + Long.numberOfTrailingZeros(left)][c >> 6] |= 1L << c;
        }
      }
    }
    for (int i = 0; i < packed.length; i++) {
      sides.put(partial.get(i), packed[i]);
    }
  }

  /** The first of {@code starts} that is not below {@code label}. */
  private static int firstFrom(int[] starts, int label) {
    int at = Arrays.binarySearch(starts, label);
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
      for (int i = side.interval(all.min()); i < side.intervals(); i++) {
        if (side.first(i) > all.max()) {
          break;
        }
        if (count + 2 > found.length) {
          found = Arrays.copyOf(found, count * 2);
        }
        if (all.contains(side.first(i))) {
          found[count++] = side.first(i);
        }
        if (all.contains(side.last(i) + 1)) {
          found[count++] = side.last(i) + 1;
        }
      }
    }
    return Arrays.stream(found, 0, count).sorted().distinct().toArray();
  }

  /** The labels of the classes whose bits are set from word {@code offset} of {@code packed} on. */
  IntSet side(long[] packed, int offset) {
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

  /** The classes of a candidate's side that are in the target's. */
  long[] bits(IntSet side) {
    return sides.get(side);
  }
}
