package dev.ironsieve.core.order;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.Arrays;

/**
 * First match among a few boxes by bit vectors (Lakshman, Stiliadis: High-Speed Policy-based Packet
 * Forwarding Using Efficient Multi-dimensional Range Matching, SIGCOMM 1998): on each axis that
 * some box narrows, the labels are cut where a box begins or ends, and each piece has a row with a
 * bit for each box that holds it. The lowest bit that all rows of a point have in common is the
 * first match.
 *
 * <p>All of it lies in two arrays, since a look-up is mostly waiting for memory:
 *
 * <pre>
 *   table:  [ header of each narrowed axis ... | starts, cuts, end | starts, cuts, end | ... ]
 *   rows:   [ first axis: piece 0, piece 1, ... | second axis: ... ]       words for each piece
 * </pre>
 */
final class Block {
  /** Most boxes in one block. */
  static final int MOST = 512;

  /** Fewer boxes are compared one by one. */
  private static final int FEW = 4;

  // A header:
  private static final int AXIS = 0;
  private static final int LOW = 1; // the lowest label that a question can bring
  private static final int HIGH = 2; // the highest
  private static final int SHIFT = 3; // bits of a label less LOW that choose no start
  private static final int STARTS = 4; // in table: for each start the first cut behind it
  private static final int CUTS = 5; // in table: where a piece begins, but the first; then the end
  private static final int ROWS = 6; // in rows
  private static final int HEADER = 7;

  /** Numbers of the boxes, by position of their rules. */
  final int[] boxes;

  private final long[] present; // a bit for each box that was not taken out
  private final Box[] few; // the boxes themselves, if there are few
  private final IntSet[] whole;
  private final int words;
  private final int[] table;
  private final int headers; // where they end
  private final long[] rows;

  /**
   * @param boxes numbers, by position of their rules
   * @param all the boxes
   * @param ranges for each axis the labels that a question can bring
   * @param whole for each axis the side that holds whatever a question brings
   */
  Block(int[] boxes, Box[] all, IntSet[] ranges, IntSet[] whole) {
    this.boxes = boxes;
    this.whole = whole;
    words = (boxes.length + 63) >> 6;
    present = new long[words];
    Arrays.fill(present, -1L);
    if ((boxes.length & 63) != 0) {
      present[words - 1] = (1L << boxes.length) - 1;
    }
    if (boxes.length <= FEW) {
      few = all;
      table = new int[0];
      headers = 0;
      rows = new long[0];
      return;
    }
    few = null;
    Layout layout = new Layout(all, ranges);
    table = layout.table;
    headers = layout.headers;
    rows = layout.rows;
  }

  /** Lays the boxes out. */
  private final class Layout {
    private final Box[] all;
    int[] table;
    int headers;
    long[] rows;
    private int[] found = new int[16]; // cuts of one axis

    Layout(Box[] all, IntSet[] ranges) {
      this.all = all;
      int[] axes = mostNarrowingFirst(ranges);
      int[][] cuts = new int[axes.length][];
      headers = axes.length * HEADER;
      int cells = headers;
      int pieces = 0;
      for (int i = 0; i < axes.length; i++) {
        IntSet range = ranges[axes[i]];
        cuts[i] = cuts(axes[i], range);
        cells += starts(range, shift(range, cuts[i].length)) + cuts[i].length + 1;
        pieces += cuts[i].length + 1;
      }
      table = new int[cells];
      rows = new long[pieces * words];
      int cell = headers;
      int piece = 0;
      for (int i = 0; i < axes.length; i++) {
        IntSet range = ranges[axes[i]];
        int shift = shift(range, cuts[i].length);
        int starts = starts(range, shift);
        int header = i * HEADER;
        table[header + AXIS] = axes[i];
        table[header + LOW] = range.min();
        table[header + HIGH] = range.max();
        table[header + SHIFT] = shift;
        table[header + STARTS] = cell;
        table[header + CUTS] = cell + starts;
        table[header + ROWS] = piece * words;
        System.arraycopy(cuts[i], 0, table, cell + starts, cuts[i].length);
        table[cell + starts + cuts[i].length] = Integer.MAX_VALUE;
        int at = cell + starts;
        for (int start = 0; start < starts; start++) {
          while (table[at] <= range.min() + (start << shift)) {
            at++;
          }
          table[cell + start] = at;
        }
        fill(header, range, cuts[i].length + 1);
        cell += starts + cuts[i].length + 1;
        piece += cuts[i].length + 1;
      }
    }

    /** So that there are about as many starts as cuts. */
    private static int shift(IntSet range, int cuts) {
      int wide = 32 - Integer.numberOfLeadingZeros(range.max() - range.min());
      return Math.max(0, wide - (32 - Integer.numberOfLeadingZeros(cuts)));
    }

    private static int starts(IntSet range, int shift) {
      return (range.max() - range.min() >>> shift) + 1;
    }

    /** The narrowed axes, so that a point is given up early on. */
    private int[] mostNarrowingFirst(IntSet[] ranges) {
      int[] axes = new int[ranges.length];
      double[] held = new double[ranges.length];
      int count = 0;
      for (int axis = 0; axis < ranges.length; axis++) {
        double share = held(axis, ranges[axis]);
        if (share < all.length) {
          int at = count++;
          for (; at > 0 && held[at - 1] > share; at--) {
            axes[at] = axes[at - 1];
            held[at] = held[at - 1];
          }
          axes[at] = axis;
          held[at] = share;
        }
      }
      return Arrays.copyOf(axes, count);
    }

    /** How many of the boxes a label of the range is in, on the average. */
    private double held(int axis, IntSet range) {
      double width = range.max() - range.min() + 1.0;
      double sum = 0;
      for (Box box : all) {
        IntSet side = box.side(axis);
        if (side == whole[axis]) {
          sum++;
          continue;
        }
        long held = 0;
        for (int i = side.interval(range.min());
            i < side.intervals() && side.first(i) <= range.max();
            i++) {
          held += Math.min(side.last(i), range.max()) - Math.max(side.first(i), range.min()) + 1L;
        }
        sum += held == width ? 1 : Math.min(held / width, 1 - 1e-6);
      }
      return sum;
    }

    private int[] cuts(int axis, IntSet range) {
      int low = range.min();
      int high = range.max();
      int count = 0;
      IntSet before = whole[axis];
      for (Box box : all) {
        IntSet side = box.side(axis);
        if (side == before || side == whole[axis]) {
          continue;
        }
        before = side;
        for (int i = side.interval(low); i < side.intervals() && side.first(i) <= high; i++) {
          if (count + 2 > found.length) {
            found = Arrays.copyOf(found, count * 2);
          }
          if (side.first(i) > low) {
            found[count++] = side.first(i);
          }
          if (side.last(i) < high) {
            found[count++] = side.last(i) + 1;
          }
        }
      }
      Arrays.sort(found, 0, count);
      int distinct = Math.min(1, count);
      for (int i = 1; i < count; i++) {
        if (found[i] != found[distinct - 1]) {
          found[distinct++] = found[i];
        }
      }
      return Arrays.copyOf(found, distinct);
    }

    /** Sets the bits of an axis, whose header and cuts are there. */
    private void fill(int header, IntSet range, int pieces) {
      int axis = table[header + AXIS];
      int offset = table[header + ROWS];
      int low = range.min();
      int high = range.max();
      long[] always = new long[words];
      for (int b = 0; b < all.length; b++) {
        if (all[b].side(axis) == whole[axis]) {
          always[b >> 6] |= 1L << b;
        }
      }
      for (int p = 0; p < pieces; p++) {
        System.arraycopy(always, 0, rows, offset + p * words, words);
      }
      for (int b = 0; b < all.length; b++) {
        IntSet side = all[b].side(axis);
        if (side == whole[axis]) {
          continue;
        }
        int word = offset + (b >> 6);
        for (int i = side.interval(low); i < side.intervals() && side.first(i) <= high; i++) {
          int to = piece(table, header, Math.min(side.last(i), high));
          for (int p = piece(table, header, Math.max(side.first(i), low)); p <= to; p++) {
            rows[word + p * words] |= 1L << b;
          }
        }
      }
    }
  }

  private boolean isPresent(int i) {
    return (present[i >> 6] >> i & 1) != 0;
  }

  /** The first of {@link #boxes}, counted from {@code from}, that holds the point, or -1. */
  int find(int[] point, int from) {
    if (few != null) {
      for (int i = from; i < few.length; i++) {
        if (isPresent(i) && holds(few[i], point, whole)) {
          return i;
        }
      }
      return -1;
    }
    if (words == 1) {
      long held = present[0] & -1L << from;
      for (int header = 0; header < headers && held != 0; header += HEADER) {
        held &= rows[row(header, point)];
      }
      return held == 0 ? -1 : Long.numberOfTrailingZeros(held);
    }
    int[] row = new int[headers / HEADER];
    int known = 0; // rows are looked up when the rows before have left something
    for (int word = from >> 6; word < words; word++) {
      long held = present[word];
      if (word == from >> 6) {
        held &= -1L << from;
      }
      for (int i = 0; i < row.length && held != 0; i++) {
        if (i == known) {
          row[known++] = row(i * HEADER, point);
        }
        held &= rows[row[i] + word];
      }
      if (held != 0) {
        return (word << 6) + Long.numberOfTrailingZeros(held);
      }
    }
    return -1;
  }

  /**
   * Whether a box holds a point of which some terms may be unknown.
   *
   * @param whole for each axis the side that holds whatever a question brings
   */
  static boolean holds(Box box, int[] point, IntSet[] whole) {
    for (int axis = 0; axis < whole.length; axis++) {
      IntSet side = box.side(axis);
      if (side != whole[axis] && !side.contains(point[axis])) {
        return false;
      }
    }
    return true;
  }

  /** Where the words of the point's piece begin. */
  private int row(int header, int[] point) {
    return table[header + ROWS] + piece(table, header, point[table[header + AXIS]]) * words;
  }

  /** How many cuts of an axis are not above a label. */
  private static int piece(int[] table, int header, int label) {
    int start = label - table[header + LOW] >>> table[header + SHIFT];
    int at = table[table[header + STARTS] + start];
    while (table[at] <= label) {
      at++;
    }
    return at - table[header + CUTS];
  }

  /**
   * Which boxes meet another, if it meets the ranges of this block. O(axes · pieces touched · boxes
   * / 64).
   *
   * @return bit b of word w stands for {@link #boxes}[64 * w + b]
   */
  long[] meeting(Box other) {
    if (few != null) {
      long[] found = new long[1];
      for (int i = 0; i < few.length; i++) {
        found[0] |= isPresent(i) && few[i].intersects(other) ? 1L << i : 0;
      }
      return found;
    }
    long[] found = present.clone();
    long[] held = new long[words];
    for (int header = 0; header < headers; header += HEADER) {
      IntSet side = other.side(table[header + AXIS]);
      if (side == whole[table[header + AXIS]]) {
        continue;
      }
      Arrays.fill(held, 0);
      addRows(header, side, held);
      long any = 0;
      for (int word = 0; word < words; word++) {
        found[word] &= held[word];
        any |= found[word];
      }
      if (any == 0) {
        break;
      }
    }
    return found;
  }

  /** Adds the rows of all pieces that a side touches. */
  private void addRows(int header, IntSet side, long[] held) {
    int low = table[header + LOW];
    int high = table[header + HIGH];
    int next = 0; // the first piece that was not added
    for (int i = side.interval(low); i < side.intervals() && side.first(i) <= high; i++) {
      int piece = Math.max(next, piece(table, header, Math.max(low, side.first(i))));
      next = piece(table, header, Math.min(high, side.last(i))) + 1;
      for (; piece < next; piece++) {
        int row = table[header + ROWS] + piece * words;
        for (int word = 0; word < words; word++) {
          held[word] |= rows[row + word];
        }
      }
    }
  }

  /** Takes a box out; nothing happens if it is not in. */
  void remove(int number) {
    int other = Arrays.stream(boxes).filter(n -> n != number).findFirst().orElse(number);
    for (int i = 0; i < boxes.length; i++) {
      if (boxes[i] == number) {
        boxes[i] = other; // so that they still stand by position
        present[i >> 6] &= ~(1L << i);
      }
      other = boxes[i];
    }
  }
}
