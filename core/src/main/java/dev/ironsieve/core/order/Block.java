package dev.ironsieve.core.order;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntConsumer;
import java.util.function.IntUnaryOperator;
import java.util.function.Predicate;

/**
 * First match among a few boxes by bit vectors (Lakshman, Stiliadis: High-Speed Policy-based Packet
 * Forwarding Using Efficient Multi-dimensional Range Matching, SIGCOMM 1998): on each axis that
 * some box narrows, the labels are cut where a box begins or ends. On the few axes that leave out
 * the most, each piece has a row with a bit for each box that holds it: the bits that all rows of a
 * point have in common are the boxes that may hold it, mostly none or one. On the others each box
 * has a bit for each piece that it holds, and only those of the boxes in question are read.
 *
 * <p>All of it lies in one array, since a look-up is mostly waiting for memory:
 *
 * <pre>
 *   data:    [ sizes | headers of axes with rows | present | headers of the others
 *              | finders | records | rows | rows ... ]
 *   sizes:   words of a row | where headers end | boxes | longs of a record | where records begin
 *   header:  how a label's class is found | which classes there are | where its finder is, and where
 *            its rows, or its bits in a record, begin
 *   present: a bit for each box that was not taken out
 *   records: of each box, by position of their rules: its number | a bit for each axis without rows
 *            that it narrows | its bits on each such axis
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

  private static final int SIZES = 0; // words of a row
  private static final int ROWED = 8; // where headers of axes with rows end: places to shift
  private static final int END = 16; // where those of the others end
  private static final int COUNT = 32; // boxes
  private static final int RECORDS = 1; // where they begin
  private static final int STRIDE = 32; // longs of each
  private static final int SMALL = 0xff; // what has 8 places
  private static final int HEADERS = 2; // where they begin

  // A header:
  private static final int AXIS = 0; // factor | places to shift << 32 | axis << 40 | listed << 48
  private static final int CLASSES = 1; // the first | how many are behind it, or cuts << 32
  private static final int ROWS = 2; // where rows, or bits in a record, begin | finder, or 0 << 32
  private static final int HEADER = 3;

  private static final long LISTED = 1L << 48;
  private static final long FACTOR = (1L << 31) - 1;

  /** A label has at most so many bits. */
  private static final int BITS = 30;

  // A record:
  private static final int NUMBER = 32; // of the box, behind a bit for each axis
  private static final int RECORD = 1; // before the bits of axes

  /** At least so many axes have rows; if not as many are narrowed, some are of what is present. */
  private static final int LEAST = 3;

  private static final int END_OF_LEAST = HEADERS + LEAST * HEADER; // of their headers

  /** Another axis has rows if by itself it leaves out so many more boxes of each point. */
  private static final double WORTH = 0.5;

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
    private double[] held; // by the narrowed axes, how many boxes hold a label on the average

    Layout(int[] numbers, Box[] all, Axis[] axes) {
      this.all = all;
      this.axes = axes;
      words = longsOf(all.length);
      int[] narrowed = mostNarrowingFirst();
      int withRows = withRows();
      int present = HEADERS + Math.max(LEAST, withRows) * HEADER;
      int others = present + words;
      int end = others + Math.max(0, narrowed.length - withRows) * HEADER;
      Pieces[] pieces = new Pieces[narrowed.length];
      int records = end;
      int stride = RECORD;
      int sum = 0; // longs of all rows
      for (int i = 0; i < pieces.length; i++) {
        Axis axis = axes[narrowed[i]];
        pieces[i] = new Pieces(axis, cuts(narrowed[i], axis.range));
        records += pieces[i].longs;
        if (i < withRows) {
          sum += pieces[i].count() * words;
        } else {
          stride += longsOf(pieces[i].count());
        }
      }
      int rows = records + stride * all.length;
      data = new long[rows + sum];
      data[SIZES] = words | present << ROWED | end << END | (long) all.length << COUNT;
      data[RECORDS] = records | (long) stride << STRIDE;
      for (int box = 0; box < all.length; box++) {
        data[present + (box >> 6)] |= 1L << box;
        data[records + box * stride] = (long) numbers[box] << NUMBER;
      }
      int finder = end;
      int bits = RECORD;
      for (int i = 0; i < pieces.length; i++) {
        if (i < withRows) {
          int header = HEADERS + i * HEADER;
          lay(header, narrowed[i], pieces[i], finder, rows);
          fillRows(header, pieces[i].count());
          rows += pieces[i].count() * words;
        } else {
          int header = others + (i - withRows) * HEADER;
          lay(header, narrowed[i], pieces[i], finder, bits);
          fillRecords(header, 1L << i - withRows);
          bits += longsOf(pieces[i].count());
        }
        finder += pieces[i].longs;
      }
      for (int i = pieces.length; i < LEAST; i++) {
        data[HEADERS + i * HEADER + ROWS] = present;
      }
    }

    /** How many longs have so many bits. */
    private static int longsOf(int bits) {
      return (bits + 63) >> 6;
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
        longs = each ? 0 : listed ? (cuts.length + 1) / 2 : marks;
      }

      int count() {
        return 1 + (each ? classes : cuts.length);
      }
    }

    /**
     * Lays out an axis but for its bits.
     *
     * @param header where it is
     * @param at where the finder begins
     * @param bits where its bits begin
     */
    private void lay(int header, int number, Pieces pieces, int at, int bits) {
      // Division by a constant (Granlund, Montgomery: Division by Invariant Integers using
      // Multiplication, PLDI 1994), exact for labels of so many bits.
      int places = BITS + 32 - Integer.numberOfLeadingZeros(pieces.axis.step - 1);
      long factor = ((1L << places) + pieces.axis.step - 1) / pieces.axis.step;
      int behind = pieces.listed ? pieces.cuts.length : pieces.classes;
      data[header + AXIS] =
          factor | (long) places << 32 | (long) number << 40 | (pieces.listed ? LISTED : 0);
      data[header + CLASSES] = pieces.base | (long) behind << 32;
      data[header + ROWS] = bits | (pieces.each ? 0 : (long) at << 32);
      if (pieces.listed) {
        for (int i = 0; i < pieces.cuts.length; i++) {
          setInt(at, i, pieces.cuts[i]);
        }
      } else if (!pieces.each) {
        mark(pieces, at);
      }
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
      held = new double[axes.length];
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
      held = Arrays.copyOf(held, count);
      return Arrays.copyOf(narrowed, count);
    }

    private int withRows() {
      double left = all.length;
      int count = 0;
      while (count < held.length
          && (count < LEAST || left - left * held[count] / all.length > WORTH)) {
        left *= held[count++] / all.length;
      }
      return count;
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

    /** Sets the rows of an axis, whose header and finder are there. */
    private void fillRows(int header, int pieces) {
      int number = axis(data[header + AXIS]);
      int rows = (int) data[header + ROWS];
      long[] always = new long[words];
      for (int box = 0; box < all.length; box++) {
        if (all[box].side(number) == axes[number].whole) {
          always[box >> 6] |= 1L << box;
        }
      }
      for (int piece = 0; piece < pieces; piece++) {
        System.arraycopy(always, 0, data, rows + piece * words, words);
      }
      for (int box = 0; box < all.length; box++) {
        int word = rows + (box >> 6);
        long bit = 1L << box;
        eachRun(
            header,
            box,
            (piece, to) -> {
              for (; piece <= to; piece++) {
                data[word + piece * words] |= bit;
              }
            });
      }
    }

    /** Sets the bits of an axis in the records. */
    private void fillRecords(int header, long own) {
      int number = axis(data[header + AXIS]);
      for (int box = 0; box < all.length; box++) {
        int record = record(data, box);
        if (all[box].side(number) != axes[number].whole) {
          data[record] |= own;
        }
        int bits = record + (int) data[header + ROWS];
        eachRun(
            header,
            box,
            (piece, to) -> {
              for (; piece <= to; piece++) {
                data[bits + (piece >> 6)] |= 1L << piece;
              }
            });
      }
    }

    /** Something for the pieces from one to another, both included. */
    @FunctionalInterface
    private interface Run {
      void accept(int piece, int to);
    }

    /** Takes the pieces that a box holds, if it narrows the axis. */
    private void eachRun(int header, int box, Run taker) {
      int number = axis(data[header + AXIS]);
      Axis axis = axes[number];
      IntSet side = all[box].side(number);
      if (side == axis.whole) {
        return;
      }
      int low = axis.range.min();
      int high = axis.range.max();
      for (int i = side.interval(low); i < side.intervals() && side.first(i) <= high; i++) {
        taker.accept(
            piece(data, header, Math.max(side.first(i), low)),
            piece(data, header, Math.min(side.last(i), high)));
      }
    }
  }

  private static int words(long[] data) {
    return (int) data[SIZES] & SMALL;
  }

  /** Where the headers of axes with rows end, and the bits of the boxes that are present begin. */
  private static int present(long[] data) {
    return (int) data[SIZES] >>> ROWED & SMALL;
  }

  /** Where the headers of the axes without rows begin. */
  private static int others(long[] data) {
    return present(data) + words(data);
  }

  /** Where they end. */
  private static int end(long[] data) {
    return (int) data[SIZES] >>> END;
  }

  /** Where the record of a box begins. */
  private static int record(long[] data, int place) {
    return (int) data[RECORDS] + place * (int) (data[RECORDS] >>> STRIDE);
  }

  /** How many boxes there are. */
  int size() {
    return (int) (data[SIZES] >>> COUNT);
  }

  /** The number of a box by its place, from 0. */
  int box(int place) {
    return box(data, place);
  }

  private static int box(long[] data, int place) {
    return (int) (data[record(data, place)] >>> NUMBER);
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
    int words = words(data);
    int one = row(data, HEADERS, point, words);
    int two = row(data, HEADERS + HEADER, point, words);
    int three = row(data, HEADERS + 2 * HEADER, point, words);
    for (int word = 0; word < words; word++) {
      for (long held = held(data, point, one, two, three, word); held != 0; held &= held - 1) {
        int place = (word << 6) + Long.numberOfTrailingZeros(held);
        if (holds(data, place, point)) {
          int box = box(data, place);
          if (from == 0 || position.applyAsInt(box) >= from) {
            return box;
          }
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
    int words = words(data);
    int one = row(data, HEADERS, point, words);
    int two = row(data, HEADERS + HEADER, point, words);
    int three = row(data, HEADERS + 2 * HEADER, point, words);
    Numbers holding = new Numbers();
    for (int word = 0; word < words && holding.size() < most; word++) {
      for (long held = held(data, point, one, two, three, word);
          held != 0 && holding.size() < most;
          held &= held - 1) {
        int place = (word << 6) + Long.numberOfTrailingZeros(held);
        if (holds(data, place, point)) {
          holding.add(box(place));
        }
      }
    }
    return holding.toArray();
  }

  /**
   * The boxes of a word that hold a point on the axes with rows.
   *
   * @param one where the point's row on the first of them begins; then of the next two
   */
  private static long held(long[] data, int[] point, int one, int two, int three, int word) {
    int present = present(data);
    long held = data[present + word] & data[one + word] & data[two + word] & data[three + word];
    for (int header = END_OF_LEAST; held != 0 && header < present; header += HEADER) {
      held &= data[row(data, header, point, words(data)) + word];
    }
    return held;
  }

  /** Whether a box holds a point on the axes without rows. */
  private static boolean holds(long[] data, int place, int[] point) {
    int record = record(data, place);
    for (int left = (int) data[record]; left != 0; left &= left - 1) {
      int header = others(data) + Integer.numberOfTrailingZeros(left) * HEADER;
      int piece = piece(data, header, point[axis(data[header + AXIS])]);
      if ((data[record + (int) data[header + ROWS] + (piece >> 6)] >>> piece & 1) == 0) {
        return false;
      }
    }
    return true;
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
   * Takes the numbers of the boxes that meet another, which meets the ranges of this block, by
   * position of their rules. O(pieces touched · boxes / 64 + boxes that meet it on the axes with
   * rows).
   *
   * @param boxes by number
   * @param which only these are wanted
   */
  void meeting(Box other, List<Box> boxes, Predicate<Box> which, IntConsumer taker) {
    int words = words(data);
    int present = present(data);
    long[] found = Arrays.copyOfRange(data, present, present + words);
    long[] held = new long[words];
    for (int header = HEADERS; header < present; header += HEADER) {
      int number = axis(data[header + AXIS]);
      IntSet side = other.side(number);
      if (side == axes[number].whole) {
        continue;
      }
      Arrays.fill(held, 0);
      addRows(header, axes[number].range, side, held);
      for (int word = 0; word < words; word++) {
        found[word] &= held[word];
      }
    }
    int narrowed = narrowed(other);
    for (int word = 0; word < words; word++) {
      for (long left = found[word]; left != 0; left &= left - 1) {
        int place = (word << 6) + Long.numberOfTrailingZeros(left);
        Box box = boxes.get(box(place));
        if (which.test(box) && meets(place, box, other, narrowed)) {
          taker.accept(box(place));
        }
      }
    }
  }

  /** A bit for each axis without rows that a box narrows. */
  private int narrowed(Box box) {
    int out = 0;
    for (int header = others(data), own = 1; header < end(data); header += HEADER, own <<= 1) {
      int number = axis(data[header + AXIS]);
      if (box.side(number) != axes[number].whole) {
        out |= own;
      }
    }
    return out;
  }

  /** Whether the box at a place meets another on the axes without rows that both narrow. */
  private boolean meets(int place, Box box, Box other, int narrowed) {
    for (int left = narrowed & (int) data[record(data, place)]; left != 0; left &= left - 1) {
      int header = others(data) + Integer.numberOfTrailingZeros(left) * HEADER;
      int number = axis(data[header + AXIS]);
      if (!box.side(number).intersects(other.side(number))) {
        return false;
      }
    }
    return true;
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
    int present = present(data);
    int size = size();
    int other = number;
    for (int i = 0; i < size && other == number; i++) {
      other = box(i);
    }
    for (int i = 0; i < size; i++) {
      if (box(i) == number) {
        // Another stands there now, so that they still stand by position.
        data[record(data, i)] ^= (long) (number ^ other) << NUMBER;
        data[present + (i >> 6)] &= ~(1L << i);
      }
      other = box(i);
    }
  }
}
