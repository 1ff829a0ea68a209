package dev.ironsieve.core.cover;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.Arrays;
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

  /** O(bounds · (log bounds + candidates / 64)), where the bounds are those inside the target. */
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
    Classes classes = new Classes(partial);
    starts = classes.starts;
    classOf = classes.classOf;
    labels = classes.labels();
    words = (labels.length + 63) >> 6;
    full = new long[words];
    for (int i = 0; i < labels.length; i++) {
      full[i >> 6] |= 1L << i;
    }
    packed = new long[partial.size()][words];
    for (int c = 0; c < labels.length; c++) {
      classes.addTo(packed, c);
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

  /**
   * Tells the classes apart by going over the target's side once, from one bound to the next, with
   * a bit for each partial side that holds what is behind it. Pieces with the same bits are one
   * class.
   */
  private final class Classes {
    private static final int ID = 24; // bits of an event that say whose bound it is

    private final int words; // of the bits of a piece
    private final long[] events; // a label, and who begins there or ends before it
    private int eventCount;
    private int[] starts;
    private int[] classOf;
    private int count; // of classes
    private final long[] rows; // by class, the bits of its pieces
    private final int[] first; // by class, the label where its first piece begins
    private final int[] table; // by hash: one more than a class, or 0

    Classes(List<IntSet> partial) {
      words = (partial.size() + 63) >> 6;
      events = new long[eventsAtMost(partial)];
      for (int i = 0; i < partial.size(); i++) {
        addEvents(partial.get(i), i);
      }
      int whole = partial.size();
      if (all.intervals() > 1) {
        addEvents(all, whole);
      }
      Arrays.sort(events, 0, eventCount);
      first = new int[eventCount + 1];
      rows = new long[first.length * words];
      table = new int[Integer.highestOneBit(first.length) << 2];
      starts = new int[first.length];
      classOf = new int[first.length];
      int pieces = goOver(whole);
      starts = Arrays.copyOf(starts, pieces);
      classOf = Arrays.copyOf(classOf, pieces);
    }

    private int eventsAtMost(List<IntSet> partial) {
      int most = 2 * all.intervals();
      for (IntSet side : partial) {
        most += 2 * (side.interval(all.max()) - side.interval(all.min()) + 1);
      }
      return most;
    }

    private void addEvents(IntSet side, int id) {
      int low = all.min();
      int high = all.max();
      for (int i = side.interval(low); i < side.intervals() && side.first(i) <= high; i++) {
        events[eventCount++] = (long) Math.max(low, side.first(i)) << ID | id;
        if (side.last(i) < high) {
          events[eventCount++] = side.last(i) + 1L << ID | id;
        }
      }
    }

    /** Notes the pieces; how many there are. */
    private int goOver(int whole) {
      long[] row = new long[words];
      boolean inside = all.intervals() == 1;
      int pieces = 0;
      int label = all.min();
      for (int at = 0; ; ) {
        while (at < eventCount && events[at] >>> ID == label) {
          int id = (int) events[at++] & (1 << ID) - 1;
          if (id == whole) {
            inside = !inside;
          } else {
            row[id >> 6] ^= 1L << id;
          }
        }
        if (inside) {
          starts[pieces] = label;
          classOf[pieces++] = classOf(row, label);
        }
        if (at == eventCount) {
          return pieces;
        }
        label = (int) (events[at] >>> ID);
      }
    }

    /** The class of a piece, which is a new one if none has its bits. */
    private int classOf(long[] row, int label) {
      long hash = 0;
      for (long bits : row) {
        hash = (hash ^ bits) * 0x9E37_79B9_7F4A_7C15L;
      }
      int at = (int) (hash >>> 32) & table.length - 1;
      while (table[at] > 0) {
        int from = (table[at] - 1) * words;
        if (Arrays.equals(rows, from, from + words, row, 0, words)) {
          return table[at] - 1;
        }
        at = at + 1 & table.length - 1;
      }
      first[count] = label;
      System.arraycopy(row, 0, rows, count * words, words);
      table[at] = ++count;
      return count - 1;
    }

    int[] labels() {
      return Arrays.copyOf(first, count);
    }

    /** Sets the bit of a class for each partial side that has it. */
    void addTo(long[][] packed, int c) {
      for (int word = 0; word < words; word++) {
        for (long left = rows[c * words + word]; left != 0; left &= left - 1) {
          packed[(word << 6) + Long.numberOfTrailingZeros(left)][c >> 6] |= 1L << c;
        }
      }
    }
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
