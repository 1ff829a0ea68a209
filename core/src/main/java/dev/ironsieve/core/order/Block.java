package dev.ironsieve.core.order;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.Arrays;
import java.util.function.IntUnaryOperator;

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
 *   data:    [ sizes | header of each narrowed axis ... | present | boxes
 *              | finder, rows | finder, rows | ... ]
 *   sizes:   words of a row | where headers end | boxes
 *   header:  how a label's class is found | which classes there are | where finder and rows begin
 *   present: a bit for each box that was not taken out
 *   boxes:   the number of each, by position of their rules
 *   rows:    [ piece 0 | piece 1 | ... ]                                 as many words as present
 * </pre>
 *
 * In which piece a label lies is told by what the finder is:
 *
 * <ul>
 *   <li>nothing: each class is a piece, where there are not many more classes than cuts;
 *   <li>marks: for 32 classes how many cuts are below them, and a bit for each that begins with a
 *       cut;
 *   <li>a list of all cuts, where they are few or lie inside of classes, which edits can split.
 * </ul>
 */
final class Block {
  /** Most boxes in one block. */
  static final int MOST = 512;

  private static final int SIZES = 0; // words | where headers end << 16 | boxes << 32
  private static final int HEADERS = 1; // where they begin

  // A header:
  private static final int AXIS = 0; // factor | places to shift << 32 | axis << 40 | listed << 48
  private static final int CLASSES = 1; // the first | how many are behind it, or cuts << 32
  private static final int ROWS = 2; // where rows begin | where the finder begins, or 0 << 32
  private static final int HEADER = 3;

  private static final long LISTED = 1L << 48;
  private static final long FACTOR = (1L << 31) - 1;

  /** A label has at most so many bits. */
  private static final int BITS = 30;

  /** In a block of so few words... */
  private static final int FEW_WORDS = 2;

  /** ... these axes, which leave out the most, often leave nothing. */
  private static final int FIRST = 3;

  /** An axis has no finder if there are at most this many classes for each cut. */
  private static final int MOST_CLASSES = 3;

  /** It has marks if they take at most so many longs for each cut. */
  private static final int MOST_MARKS = 4;

  /** Classes for which one long has marks. */
  private static final int MARKED = 32;

  /**
   * What has to be known of an axis.
   *
   * @param whole the side that holds whatever a question brings
   * @param range the labels that a question can bring
   * @param step see {@link dev.ironsieve.core.space.Space#step}
   */
  record Axis(IntSet whole, IntSet range, int step) {}

  private final Axis[] axes;
  private final long[] data;
  private boolean shared; // by several orders

  /**
   * @param numbers of the boxes, by position of their rules
   * @param all the boxes
   * @param axes by number
   */
  Block(int[] numbers, Box[] all, Axis[] axes) {
    this.axes = axes;
    data = new Layout(numbers, all, axes).data;
  }

  private Block(Block other) {
    axes = other.axes;
    data = other.data.clone();
  }

  /** Several orders have this block from now on: each will change its own. */
  void share() {
    shared = true;
  }

  /** Lays the boxes out. */
  private static final class Layout {
    private final Box[] all;
    private final Axis[] axes;
    private final int words;
    private final long[] data;
    private int[] found = new int[16]; // cuts of one axis

    Layout(int[] numbers, Box[] all, Axis[] axes) {
      this.all = all;
      this.axes = axes;
      words = (all.length + 63) >> 6;
      int[] narrowed = mostNarrowingFirst();
      int headers = HEADERS + narrowed.length * HEADER;
      Pieces[] pieces = new Pieces[narrowed.length];
      int size = headers + words + longsOf(all.length);
      for (int i = 0; i < pieces.length; i++) {
        Axis axis = axes[narrowed[i]];
        pieces[i] = new Pieces(axis, cuts(narrowed[i], axis.range));
        size += pieces[i].longs + pieces[i].count() * words;
      }
      data = new long[size];
      data[SIZES] = words | headers << 16 | (long) all.length << 32;
      for (int box = 0; box < all.length; box++) {
        data[headers + (box >> 6)] |= 1L << box;
        setInt(headers + words, box, numbers[box]);
      }
      int at = headers + words + longsOf(all.length);
      for (int i = 0; i < pieces.length; i++) {
        at = lay(HEADERS + i * HEADER, narrowed[i], pieces[i], at);
      }
    }

    private static int longsOf(int ints) {
      return (ints + 1) / 2;
    }

    private void setInt(int from, int i, int value) {
      data[from + (i >> 1)] |= (long) value << (i << 5);
    }

    /** How the pieces of an axis are found. */
    private static final class Pieces {
      private final Axis axis;
      private final int[] cuts;
      private final int base; // the lowest class
      private final int classes; // behind it
      private final boolean listed;
      private final boolean each; // whether each class is a piece
      private final int longs; // that the finder takes

      Pieces(Axis axis, int[] cuts) {
        this.axis = axis;
        this.cuts = cuts;
        base = axis.range.min() / axis.step;
        classes = Math.min(axis.range.max(), axis.whole.max() + 1) / axis.step - base;
        int marks = classes / MARKED + 1;
        boolean split = Arrays.stream(cuts).anyMatch(cut -> cut % axis.step != 0);
        each = !split && classes <= MOST_CLASSES * cuts.length;
        listed = !each && (split || marks > MOST_MARKS * cuts.length);
        longs = each ? 0 : listed ? longsOf(cuts.length) : marks;
      }

      int count() {
        return 1 + (each ? classes : cuts.length);
      }
    }

    /**
     * Lays out an axis.
     *
     * @param header where it is
     * @param at where finder and rows may begin
     * @return where they end
     */
    private int lay(int header, int number, Pieces pieces, int at) {
      // Division by a constant (Granlund, Montgomery: Division by Invariant Integers using
      // Multiplication, PLDI 1994), exact for labels of so many bits.
      int places = BITS + 32 - Integer.numberOfLeadingZeros(pieces.axis.step - 1);
      long factor = ((1L << places) + pieces.axis.step - 1) / pieces.axis.step;
      int rows = at + pieces.longs;
      int behind = pieces.listed ? pieces.cuts.length : pieces.classes;
      data[header + AXIS] =
          factor | (long) places << 32 | (long) number << 40 | (pieces.listed ? LISTED : 0);
      data[header + CLASSES] = pieces.base | (long) behind << 32;
      data[header + ROWS] = rows | (pieces.each ? 0 : (long) at << 32);
      if (pieces.listed) {
        for (int i = 0; i < pieces.cuts.length; i++) {
          setInt(at, i, pieces.cuts[i]);
        }
      } else if (!pieces.each) {
        mark(pieces, at);
      }
      fill(header, pieces.count());
      return rows + pieces.count() * words;
    }

    private void mark(Pieces pieces, int at) {
      for (int cut : pieces.cuts) {
        int mark = cut / pieces.axis.step - pieces.base;
        data[at + mark / MARKED] |= 1L << mark % MARKED;
      }
      int below = 0;
      for (int i = 0; i < pieces.longs; i++) {
        int own = Long.bitCount(data[at + i]);
        data[at + i] |= (long) below << MARKED;
        below += own;
      }
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
      int number = axis(data[header + AXIS]);
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

  private static int words(long[] data) {
    return (int) data[SIZES] & 0xffff;
  }

  /** Where the headers end, and the bits of the boxes that are present begin. */
  private static int endOfHeaders(long[] data) {
    return (int) data[SIZES] >>> 16;
  }

  /** How many boxes there are. */
  int size() {
    return (int) (data[SIZES] >>> 32);
  }

  /** The number of a box by its place, from 0. */
  int box(int place) {
    return box(data, place);
  }

  private static int box(long[] data, int place) {
    return (int) (data[endOfHeaders(data) + words(data) + (place >> 1)] >>> (place << 5));
  }

  /** All of this block, for those who look up points. */
  long[] data() {
    return data;
  }

  /**
   * The first box that holds a point and whose rule stands at {@code from} or behind.
   *
   * @param data of the block
   * @param position of a box's rule
   * @return its number, or {@link Cell#NONE}
   */
  static int find(long[] data, int[] point, int from, IntUnaryOperator position) {
    int[] row = rows(data, point);
    for (int word = 0; row != null && word < words(data); word++) {
      for (long held = held(data, row, word); held != 0; held &= held - 1) {
        int box = box(data, (word << 6) + Long.numberOfTrailingZeros(held));
        if (from == 0 || position.applyAsInt(box) >= from) {
          return box;
        }
      }
    }
    return Cell.NONE;
  }

  /**
   * The numbers of the first boxes that hold a point, by position of their rules.
   *
   * @param most how many at most
   */
  int[] holding(int[] point, int most) {
    int[] row = rows(data, point);
    Numbers holding = new Numbers();
    for (int word = 0; row != null && word < words(data); word++) {
      for (long held = held(data, row, word);
          held != 0 && holding.size() < most;
          held &= held - 1) {
        holding.add(box((word << 6) + Long.numberOfTrailingZeros(held)));
      }
    }
    return holding.toArray();
  }

  private static long held(long[] data, int[] row, int word) {
    long held = data[endOfHeaders(data) + word];
    for (int i = 0; i < row.length; i++) {
      held &= data[row[i] + word];
    }
    return held;
  }

  /**
   * Where the row of a point begins on each narrowed axis; null if it was seen that no box holds
   * the point. A branch that waits for memory is guessed, and a wrong guess begins to wait again:
   * so there is one at most.
   */
  private static int[] rows(long[] data, int[] point) {
    int words = words(data);
    int[] row = new int[(endOfHeaders(data) - HEADERS) / HEADER];
    int first = words > FEW_WORDS ? 0 : Math.min(FIRST, row.length);
    for (int i = 0; i < first; i++) {
      row[i] = row(data, HEADERS + i * HEADER, point, words);
    }
    if (first > 0 && !isAnyLeft(data, row, first)) {
      return null;
    }
    for (int i = first; i < row.length; i++) {
      row[i] = row(data, HEADERS + i * HEADER, point, words);
    }
    return row;
  }

  /** Whether there is a box that the first rows have in common. */
  private static boolean isAnyLeft(long[] data, int[] row, int first) {
    long any = 0;
    int present = endOfHeaders(data);
    for (int word = words(data) - 1; word >= 0; word--) {
      long held = data[present + word];
      for (int i = 0; i < first; i++) {
        held &= data[row[i] + word];
      }
      any |= held;
    }
    return any != 0;
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
    int label = point[axis(data[header + AXIS])];
    return (int) data[header + ROWS] + piece(data, header, label) * words;
  }

  private static int axis(long header) {
    return (int) (header >>> 40) & 0xff;
  }

  /** The piece of an axis in which a label lies. */
  private static int piece(long[] data, int header, int label) {
    long axis = data[header + AXIS];
    long classes = data[header + CLASSES];
    int finder = (int) (data[header + ROWS] >>> 32);
    if ((axis & LISTED) != 0) {
      return listed(data, finder, (int) (classes >>> 32), label);
    }
    int own = (int) ((axis & FACTOR) * label >>> (axis >>> 32)) - (int) classes; // by its low bits
    int behind = Math.min(own, (int) (classes >>> 32)); // labels behind the last are one class
    if (finder == 0) {
      return behind;
    }
    long marks = data[finder + behind / MARKED];
    return (int) (marks >>> MARKED) + Integer.bitCount((int) marks & (2 << behind) - 1);
  }

  /** How many of some cuts are not above a label. */
  private static int listed(long[] data, int cuts, int count, int label) {
    int low = 0;
    int high = count;
    while (low < high) {
      int middle = (low + high) >>> 1;
      if ((int) (data[cuts + (middle >> 1)] >>> (middle << 5)) <= label) {
        low = middle + 1;
      } else {
        high = middle;
      }
    }
    return low;
  }

  /**
   * Which boxes meet another, if it meets the ranges of this block. O(axes · pieces touched · boxes
   * / 64).
   *
   * @return bit b of word w stands for the box at place 64 * w + b
   */
  long[] meeting(Box other) {
    int words = words(data);
    int end = endOfHeaders(data);
    long[] found = Arrays.copyOfRange(data, end, end + words);
    long[] held = new long[words];
    for (int header = HEADERS; header < end; header += HEADER) {
      int number = axis(data[header + AXIS]);
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
    int words = held.length;
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

  /** This block or another with the same boxes but one, which need not be here. */
  Block without(int number) {
    int at = 0;
    while (at < size() && box(at) != number) {
      at++;
    }
    if (at == size()) {
      return this;
    }
    Block out = shared ? new Block(this) : this;
    out.remove(number);
    return out;
  }

  private void remove(int number) {
    int present = endOfHeaders(data);
    int at = present + words(data);
    int size = size();
    int other = number;
    for (int i = 0; i < size && other == number; i++) {
      other = box(i);
    }
    for (int i = 0; i < size; i++) {
      if (box(i) == number) {
        // Another stands there now, so that they still stand by position.
        data[at + (i >> 1)] ^= (long) (number ^ other) << (i << 5);
        data[present + (i >> 6)] &= ~(1L << i);
      }
      other = box(i);
    }
  }
}
