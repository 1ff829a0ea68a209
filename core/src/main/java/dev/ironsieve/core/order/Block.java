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
 * <p>All of it lies in one array, since a look-up is mostly waiting for memory:
 *
 * <pre>
 *   data:    [ present | header of each narrowed axis ... | finder, rows | finder, rows | ... ]
 *   present: a bit for each box that was not taken out
 *   header:  [ axis, shift, lowest label | where finder and rows begin | see below ]
 *   finder:  [ cuts before, 1st, 2nd, 3rd cut behind the start ] for each start, then all cuts
 *   rows:    [ piece 0 | piece 1 | ... ]                                 as many words as present
 * </pre>
 *
 * The first bits of a label choose a start. An axis on which the boxes tell most classes apart has
 * no finder: each class is a piece, and is known by the first bits of its labels.
 */
final class Block {
  /** Most boxes in one block. */
  static final int MOST = 512;

  // A header:
  private static final int AXIS = 0; // | bits that choose no start << 8 | lowest label << 32
  private static final int ROWS = 1; // where rows begin | where the finder begins, or 0 << 32
  private static final int LAST = 2; // where all cuts begin; without a finder, the last piece
  private static final int HEADER = 3;

  /** An axis has no finder if there are at most this many classes for each cut. */
  private static final int MOST_CLASSES = 3;

  /** Cuts that a start knows. */
  private static final int NEAR = 3;

  private static final int LONGS_OF_START = 2;

  /**
   * What has to be known of an axis.
   *
   * @param whole the side that holds whatever a question brings
   * @param range the labels that a question can bring
   * @param step see {@link dev.ironsieve.core.space.Space#step}
   */
  record Axis(IntSet whole, IntSet range, int step) {}

  /** Numbers of the boxes, by position of their rules. */
  final int[] boxes;

  private final Axis[] axes;
  private final int words;
  private final int headers; // where they end
  private final long[] data;

  /**
   * @param boxes numbers, by position of their rules
   * @param all the boxes
   * @param axes by number
   */
  Block(int[] boxes, Box[] all, Axis[] axes) {
    this.boxes = boxes;
    this.axes = axes;
    words = (boxes.length + 63) >> 6;
    Layout layout = new Layout(all);
    headers = layout.headers;
    data = layout.data;
  }

  /** Lays the boxes out. */
  private final class Layout {
    private final Box[] all;
    private final int headers;
    private final long[] data;
    private int[] found = new int[16]; // cuts of one axis

    Layout(Box[] all) {
      this.all = all;
      int[] narrowed = mostNarrowingFirst();
      headers = words + narrowed.length * HEADER;
      int[][] cuts = new int[narrowed.length][];
      int size = headers;
      for (int i = 0; i < cuts.length; i++) {
        Axis axis = axes[narrowed[i]];
        cuts[i] = cuts(narrowed[i], axis.range);
        size +=
            hasFinder(axis, cuts[i])
                ? starts(axis.range, shift(axis.range, cuts[i])) * LONGS_OF_START
                    + longsOfCuts(cuts[i])
                    + (cuts[i].length + 1) * words
                : (classes(axis) + 1) * words;
      }
      data = new long[size];
      for (int box = 0; box < all.length; box++) {
        data[box >> 6] |= 1L << box;
      }
      int at = headers;
      for (int i = 0; i < cuts.length; i++) {
        at = lay(words + i * HEADER, narrowed[i], cuts[i], at);
      }
    }

    /**
     * Lays out an axis.
     *
     * @param header where it is
     * @param at where finder and rows may begin
     * @return where they end
     */
    private int lay(int header, int number, int[] cuts, int at) {
      Axis axis = axes[number];
      int low = axis.range.min();
      int shift;
      int rows;
      int pieces;
      if (hasFinder(axis, cuts)) {
        shift = shift(axis.range, cuts);
        pieces = cuts.length + 1;
        int starts = starts(axis.range, shift);
        int list = at + starts * LONGS_OF_START;
        rows = list + longsOfCuts(cuts);
        data[header + ROWS] = (long) at << 32;
        data[header + LAST] = list;
        for (int i = 0; i < 2 * (rows - list); i++) {
          data[list + (i >> 1)] |= cut(cuts, i) << (i << 5);
        }
        int before = 0;
        for (int start = 0; start < starts; start++) {
          while (cut(cuts, before) <= low + (start << shift)) {
            before++;
          }
          int to = at + start * LONGS_OF_START;
          data[to] = before | cut(cuts, before) << 32;
          data[to + 1] = cut(cuts, before + 1) | cut(cuts, before + 2) << 32;
        }
      } else {
        shift = Integer.numberOfTrailingZeros(axis.step);
        pieces = classes(axis) + 1;
        rows = at;
        data[header + LAST] = pieces - 1;
      }
      data[header + AXIS] = number | shift << 8 | (long) low << 32;
      data[header + ROWS] |= rows;
      fill(header, pieces);
      return rows + pieces * words;
    }

    private static long cut(int[] cuts, int i) {
      return i < cuts.length ? cuts[i] : Integer.MAX_VALUE;
    }

    private static int longsOfCuts(int[] cuts) {
      return cuts.length / 2 + 1; // and one at least that is above all labels
    }

    private static int classes(Axis axis) {
      return (axis.whole.max() + 1) / axis.step;
    }

    private static boolean hasFinder(Axis axis, int[] cuts) {
      if (axis.step == 0 || axis.range.min() > 0 || classes(axis) > MOST_CLASSES * cuts.length) {
        return true;
      }
      for (int cut : cuts) {
        if ((cut & axis.step - 1) != 0) {
          return true; // a class that was split
        }
      }
      return false;
    }

    /** So that there are at most as many starts as cuts, and at least half as many. */
    private static int shift(IntSet range, int[] cuts) {
      int wide = 32 - Integer.numberOfLeadingZeros(range.max() - range.min());
      return Math.max(0, wide - (31 - Integer.numberOfLeadingZeros(cuts.length)));
    }

    private static int starts(IntSet range, int shift) {
      return (range.max() - range.min() >>> shift) + 1;
    }

    /** The narrowed axes, so that a point is given up early on. */
    private int[] mostNarrowingFirst() {
      int[] narrowed = new int[axes.length];
      double[] held = new double[axes.length];
      int count = 0;
      for (int axis = 0; axis < axes.length; axis++) {
        double share = held(axis, axes[axis].range);
        if (share < all.length) {
          int at = count++;
          for (; at > 0 && held[at - 1] > share; at--) {
            narrowed[at] = narrowed[at - 1];
            held[at] = held[at - 1];
          }
          narrowed[at] = axis;
          held[at] = share;
        }
      }
      return Arrays.copyOf(narrowed, count);
    }

    /** How many of the boxes a label of the range is in, on the average. */
    private double held(int axis, IntSet range) {
      double width = range.max() - range.min() + 1.0;
      double sum = 0;
      for (Box box : all) {
        IntSet side = box.side(axis);
        if (side == axes[axis].whole) {
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
      IntSet before = axes[axis].whole;
      for (Box box : all) {
        IntSet side = box.side(axis);
        if (side == before || side == axes[axis].whole) {
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

    /** Sets the bits of an axis, whose header and finder are there. */
    private void fill(int header, int pieces) {
      int number = (int) data[header + AXIS] & 0xff;
      Axis axis = axes[number];
      int rows = (int) data[header + ROWS];
      int low = axis.range.min();
      int high = axis.range.max();
      long[] always = new long[words];
      for (int box = 0; box < all.length; box++) {
        if (all[box].side(number) == axis.whole) {
          always[box >> 6] |= 1L << box;
        }
      }
      for (int piece = 0; piece < pieces; piece++) {
        System.arraycopy(always, 0, data, rows + piece * words, words);
      }
      for (int box = 0; box < all.length; box++) {
        IntSet side = all[box].side(number);
        if (side == axis.whole) {
          continue;
        }
        int word = rows + (box >> 6);
        for (int i = side.interval(low); i < side.intervals() && side.first(i) <= high; i++) {
          int to = piece(data, header, Math.min(side.last(i), high));
          for (int piece = piece(data, header, Math.max(side.first(i), low));
              piece <= to;
              piece++) {
            data[word + piece * words] |= 1L << box;
          }
        }
      }
    }
  }

  /**
   * The first of {@link #boxes}, counted from {@code from}, that holds the point, or -1.
   *
   * @param until only so many words of 64 boxes are looked at
   */
  int find(int[] point, int from, int until) {
    long[] data = this.data;
    if (words == 1) {
      long held = data[0] & -1L << from;
      for (int header = 1; header < headers && held != 0; header += HEADER) {
        held &= data[row(data, header, point, 1)];
      }
      return held == 0 ? -1 : Long.numberOfTrailingZeros(held);
    }
    int[] row = new int[(headers - words) / HEADER];
    int known = 0; // rows are looked up when the rows before have left something
    for (int word = from >> 6; word < until; word++) {
      long held = data[word];
      if (word == from >> 6) {
        held &= -1L << from;
      }
      for (int i = 0; i < row.length && held != 0; i++) {
        if (i == known) {
          row[known++] = row(data, words + i * HEADER, point, words);
        }
        held &= data[row[i] + word];
      }
      if (held != 0) {
        return (word << 6) + Long.numberOfTrailingZeros(held);
      }
    }
    return -1;
  }

  /** Whether a box holds a point of which some terms may be unknown. */
  static boolean holds(Box box, int[] point, Axis[] axes) {
    for (int axis = 0; axis < axes.length; axis++) {
      IntSet side = box.side(axis);
      if (side != axes[axis].whole && !side.contains(point[axis])) {
        return false;
      }
    }
    return true;
  }

  /** Where the words of the point's piece begin. */
  private static int row(long[] data, int header, int[] point, int words) {
    int label = point[(int) data[header + AXIS] & 0xff];
    return (int) data[header + ROWS] + piece(data, header, label) * words;
  }

  /** The piece of an axis in which a label lies. */
  private static int piece(long[] data, int header, int label) {
    long axis = data[header + AXIS];
    int start = label - (int) (axis >>> 32) >>> (int) (axis >> 8); // by its lowest five bits
    int finder = (int) (data[header + ROWS] >>> 32);
    if (finder == 0) {
      return Math.min(start, (int) data[header + LAST]);
    }
    long one = data[finder + start * LONGS_OF_START];
    long two = data[finder + start * LONGS_OF_START + 1];
    int behind = label + 1;
    if ((int) (two >>> 32) < behind) {
      return far(data, (int) data[header + LAST], (int) one + NEAR, label);
    }
    // A cut that is not above the label counts; its difference is negative.
    return (int) one + ((int) (one >>> 32) - behind >>> 31) + ((int) two - behind >>> 31);
  }

  /** How many cuts are not above a label, if {@code before} are not. */
  private static int far(long[] data, int cuts, int before, int label) {
    int at = before;
    while ((int) (data[cuts + (at >> 1)] >>> (at << 5)) <= label) {
      at++;
    }
    return at;
  }

  /**
   * Which boxes meet another, if it meets the ranges of this block. O(axes · pieces touched · boxes
   * / 64).
   *
   * @return bit b of word w stands for {@link #boxes}[64 * w + b]
   */
  long[] meeting(Box other) {
    long[] found = Arrays.copyOf(data, words);
    long[] held = new long[words];
    for (int header = words; header < headers; header += HEADER) {
      int number = (int) data[header + AXIS] & 0xff;
      IntSet side = other.side(number);
      if (side == axes[number].whole) {
        continue;
      }
      Arrays.fill(held, 0);
      addRows(header, axes[number].range, side, held);
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
  private void addRows(int header, IntSet range, IntSet side, long[] held) {
    int low = range.min();
    int high = range.max();
    int rows = (int) data[header + ROWS];
    int next = 0; // the first piece that was not added
    for (int i = side.interval(low); i < side.intervals() && side.first(i) <= high; i++) {
      int piece = Math.max(next, piece(data, header, Math.max(low, side.first(i))));
      next = piece(data, header, Math.min(high, side.last(i))) + 1;
      for (; piece < next; piece++) {
        int row = rows + piece * words;
        for (int word = 0; word < words; word++) {
          held[word] |= data[row + word];
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
        data[i >> 6] &= ~(1L << i);
      }
      other = boxes[i];
    }
  }
}
