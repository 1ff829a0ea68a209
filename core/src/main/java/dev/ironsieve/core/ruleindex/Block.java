package dev.ironsieve.core.ruleindex;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.function.IntPredicate;
import java.util.function.IntUnaryOperator;

/**
 * First match among a few boxes by bit vectors (Lakshman, Stiliadis: High-Speed Policy-based Packet
 * Forwarding Using Efficient Multi-dimensional Range Matching, SIGCOMM 1998) on the few most
 * selective axes: there the codes are cut where a box begins or ends, and each piece has a row with
 * a bit for each box that holds it. The AND of the rows of a point gives the boxes that may hold
 * it, mostly none or one; those are compared.
 *
 * <p>All of it lies in one array, since a look-up is bound by memory latency:
 *
 * <pre>
 *   data:    [ sizes | headers of axes | present | finders | boxes | rows | rows ... ]
 *   sizes:   words of a row | where headers end | boxes | a bit for each axis, where boxes begin
 *   header:  how a code's class is found | which classes there are | where finder and rows begin
 *   present: a bit for each box that was not removed
 *   boxes:   the number of each and where its record is, see {@link BoxRecords}, by position of
 *            their rules
 *   rows:    [ piece 0 | piece 1 | ... ]                                 as many words as present
 * </pre>
 *
 * The finder of an axis gives the piece of a code:
 *
 * <ul>
 *   <li>nothing: each class is a piece, if there are not many more classes than cuts;
 *   <li>marks: for 32 classes the number of cuts below them, and a bit for each that begins with a
 *       cut;
 *   <li>a list of all cuts, if they are few or lie inside of classes, which edits can split.
 * </ul>
 */
final class Block {
  /** Most boxes in one block. */
  static final int MOST = 512;

  private static final int[] NO_CUTS = {};

  private static final int SIZES = 0; // words of a row
  private static final int END = 8; // where headers end: places to shift
  private static final int COUNT = 32; // boxes
  private static final int BOXES = 1; // where they begin
  private static final int ROWED = 32; // a bit for each axis with rows
  private static final int SMALL = 0xff; // what has 8 places
  private static final int HEADERS = 2; // where they begin

  // A header:
  private static final int AXIS = 0; // factor | places to shift << 32 | axis << 40 | listed << 48
  private static final int CLASSES = 1; // the first | how many are behind it, or cuts << 32
  private static final int ROWS = 2; // where rows begin | where the finder begins, or 0 << 32
  private static final int HEADER = 3;

  private static final long LISTED = 1L << 48;
  private static final long FACTOR = (1L << 31) - 1;

  /** A code has at most so many bits. */
  private static final int BITS = 30;

  private static final int NUMBER = 32; // of a box, behind where its record is

  /** At least so many axes have rows; if not as many are narrowed, some are of what is present. */
  private static final int LEAST = 3;

  private static final int END_OF_LEAST = HEADERS + LEAST * HEADER; // of their headers

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
   * @param range the codes that a question can bring
   * @param step see {@link dev.ironsieve.core.space.Space#step}
   */
  record Axis(IntSet whole, IntSet range, int step) {}

  private final Axis[] axes;
  private final long[] data;
  private boolean shared; // by several orders

  /**
   * @param numbers of the boxes, by position of their rules
   * @param all the boxes
   * @param records of these boxes and others
   * @param axes by number
   * @param worth how many longs of rows are worth that one box less is in question
   */
  Block(int[] numbers, Box[] all, BoxRecords records, Axis[] axes, int worth) {
    this.axes = axes;
    data = new Layout(numbers, all, records, axes, worth).data;
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
    private int[] found = new int[256]; // cuts of one axis
    private int count; // of them

    Layout(int[] numbers, Box[] all, BoxRecords records, Axis[] axes, int worth) {
      this.all = all;
      this.axes = axes;
      words = longsOf(all.length);
      List<Rowed> chosen = rowed(worth);
      int present = HEADERS + Math.max(LEAST, chosen.size()) * HEADER;
      int own = present + words; // where boxes begin
      Pieces[] pieces = new Pieces[chosen.size()];
      int sum = 0; // longs of all rows
      int rowed = 0;
      for (int i = 0; i < pieces.length; i++) {
        int axis = chosen.get(i).axis;
        pieces[i] = new Pieces(axes[axis], chosen.get(i).cuts);
        own += pieces[i].longs;
        sum += pieces[i].count() * words;
        rowed |= 1 << axis;
      }
      int rows = own + all.length;
      data = new long[rows + sum];
      data[SIZES] = words | present << END | (long) all.length << COUNT;
      data[BOXES] = own | (long) rowed << ROWED;
      for (int box = 0; box < all.length; box++) {
        data[present + (box >> 6)] |= 1L << box;
        data[own + box] = (long) numbers[box] << NUMBER | records.start(numbers[box]);
      }
      int finder = present + words;
      for (int i = 0; i < pieces.length; i++) {
        int header = HEADERS + i * HEADER;
        lay(header, chosen.get(i).axis, pieces[i], finder, rows);
        fillRows(header, pieces[i].count());
        rows += pieces[i].count() * words;
        finder += pieces[i].longs;
      }
      for (int i = pieces.length; i < LEAST; i++) {
        data[HEADERS + i * HEADER + ROWS] = present;
      }
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
     * @param rows where its rows begin
     */
    private void lay(int header, int number, Pieces pieces, int at, int rows) {
      // Division by a constant (Granlund, Montgomery: Division by Invariant Integers using
      // Multiplication, PLDI 1994), exact for codes of so many bits.
      int places = BITS + 32 - Integer.numberOfLeadingZeros(pieces.axis.step - 1);
      long factor = ((1L << places) + pieces.axis.step - 1) / pieces.axis.step;
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

    /**
     * An axis that some box narrows.
     *
     * @param held how many of the boxes a code is in, on the average
     */
    private record Narrowed(int axis, double held) {}

    /**
     * An axis with rows.
     *
     * @param cuts where boxes begin or end, ascending
     */
    private record Rowed(int axis, int[] cuts) {}

    /** The axes that are worth rows, the most narrowing first. */
    private List<Rowed> rowed(int worth) {
      List<Rowed> rowed = new ArrayList<>();
      double left = all.length;
      for (Narrowed axis : mostNarrowingFirst()) {
        double behind = left * axis.held / all.length;
        double worthIt = rowed.size() < LEAST ? Double.MAX_VALUE : (left - behind) * worth;
        if (worthIt < 2 * words) {
          break; // with one cut there are two rows
        }
        int[] cuts = cuts(axis.axis);
        if (worthIt < (cuts.length + 1) * words) {
          break;
        }
        rowed.add(new Rowed(axis.axis, cuts));
        left = behind;
      }
      return rowed;
    }

    /** The narrowed axes, so that a point is given up early on. */
    private List<Narrowed> mostNarrowingFirst() {
      List<Narrowed> narrowed = new ArrayList<>();
      for (int axis = 0; axis < axes.length; axis++) {
        double held = held(axes[axis], axis);
        if (held < all.length) {
          narrowed.add(new Narrowed(axis, held));
        }
      }
      narrowed.sort(Comparator.comparingDouble(Narrowed::held));
      return narrowed;
    }

    /** How many of the boxes a code of the range is in, on the average. */
    private double held(Axis axis, int number) {
      double width = axis.range.max() - axis.range.min() + 1.0;
      double sum = 0;
      double last = 1;
      IntSet before = axis.whole;
      for (Box box : all) {
        IntSet side = box.side(number);
        if (side != before) {
          before = side;
          double held = side == axis.whole ? width : held(side, axis.range.min(), axis.range.max());
          last = held == width ? 1 : Math.min(held / width, 1 - 1e-6);
        }
        sum += last;
      }
      return sum;
    }

    private static long held(IntSet side, int low, int high) {
      if (side.min() >= low && side.max() <= high) {
        return side.size();
      }
      long held = 0;
      for (int i = side.interval(low); i < side.intervals() && side.first(i) <= high; i++) {
        held += Math.min(side.last(i), high) - Math.max(side.first(i), low) + 1L;
      }
      return held;
    }

    /** Where boxes begin or end, ascending. */
    private int[] cuts(int number) {
      Axis axis = axes[number];
      IntSet before = axis.whole;
      count = 0;
      for (Box box : all) {
        IntSet side = box.side(number);
        if (side != before) {
          before = side;
          find(side, axis);
        }
      }
      return count == 0 ? NO_CUTS : ascending(axis);
    }

    private void find(IntSet side, Axis axis) {
      if (side == axis.whole) {
        return;
      }
      int low = axis.range.min();
      int high = axis.range.max();
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

    /** The cuts that were found. */
    private int[] ascending(Axis axis) {
      int[] marked = marked(axis);
      return marked == null ? sorted() : marked;
    }

    /**
     * The cuts by the classes that begin with them, each marked with a bit, which is quicker than
     * to sort what many boxes have in common.
     *
     * @return null if some lie inside of classes, or there are many more classes than cuts
     */
    private int[] marked(Axis axis) {
      int base = axis.range.min() / axis.step;
      int classes = Math.min(axis.range.max(), axis.whole.max() + 1) / axis.step - base;
      if (classes >> 6 > count) {
        return null;
      }
      long[] marks = new long[(classes >> 6) + 1];
      for (int i = 0; i < count; i++) {
        int mark = found[i] / axis.step - base;
        if ((mark + base) * axis.step != found[i] || mark > classes) {
          return null;
        }
        marks[mark >> 6] |= 1L << mark;
      }
      int next = 0;
      for (int word = 0; word < marks.length; word++) {
        for (long left = marks[word]; left != 0; left &= left - 1) {
          found[next++] = ((word << 6) + Long.numberOfTrailingZeros(left) + base) * axis.step;
        }
      }
      return Arrays.copyOf(found, next);
    }

    private int[] sorted() {
      Arrays.sort(found, 0, count);
      int distinct = 1;
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
      Axis axis = axes[number];
      int low = axis.range.min();
      int high = axis.range.max();
      // The bit changes where a side begins and behind its end; summed up, it is set in between.
      for (int box = 0; box < all.length; box++) {
        IntSet side = all[box].side(number);
        int word = rows + (box >> 6);
        long bit = 1L << box;
        if (side == axis.whole) {
          data[word] ^= bit;
          continue;
        }
        for (int i = side.interval(low); i < side.intervals() && side.first(i) <= high; i++) {
          data[word + piece(data, header, Math.max(side.first(i), low)) * words] ^= bit;
          int behind = piece(data, header, Math.min(side.last(i), high)) + 1;
          if (behind < pieces) {
            data[word + behind * words] ^= bit;
          }
        }
      }
      for (int at = rows + words; at < rows + pieces * words; at++) {
        data[at] ^= data[at - words];
      }
    }
  }

  /** How many longs have so many bits. */
  private static int longsOf(int bits) {
    return (bits + 63) >> 6;
  }

  private static int words(long[] data) {
    return (int) data[SIZES] & SMALL;
  }

  /** Where the headers end, and the bits of the boxes that are present begin. */
  private static int present(long[] data) {
    return (int) data[SIZES] >>> END;
  }

  /** Where a box stands. */
  private static int at(long[] data, int place) {
    return (int) data[BOXES] + place;
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
    return (int) (data[at(data, place)] >>> NUMBER);
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
   * @param records of all boxes
   * @return its number, or {@link Cell#NONE}
   */
  static int find(
      long[] data, int[] point, int from, IntUnaryOperator position, BoxRecords records) {
    int words = words(data);
    int one = row(data, HEADERS, point, words);
    int two = row(data, HEADERS + HEADER, point, words);
    int three = row(data, HEADERS + 2 * HEADER, point, words);
    for (int word = 0; word < words; word++) {
      for (long held = held(data, point, one, two, three, word); held != 0; held &= held - 1) {
        int place = (word << 6) + Long.numberOfTrailingZeros(held);
        if (holds(data, place, point, records)) {
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
   * @param records of all boxes
   */
  int[] holding(int[] point, int most, BoxRecords records) {
    int words = words(data);
    int one = row(data, HEADERS, point, words);
    int two = row(data, HEADERS + HEADER, point, words);
    int three = row(data, HEADERS + 2 * HEADER, point, words);
    IntList holding = new IntList();
    for (int word = 0; word < words && holding.size() < most; word++) {
      for (long held = held(data, point, one, two, three, word);
          held != 0 && holding.size() < most;
          held &= held - 1) {
        int place = (word << 6) + Long.numberOfTrailingZeros(held);
        if (holds(data, place, point, records)) {
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
  private static boolean holds(long[] data, int place, int[] point, BoxRecords records) {
    long box = data[at(data, place)];
    return records.holds((int) box, (int) (box >>> NUMBER), point, (int) (data[BOXES] >>> ROWED));
  }

  /** Where the words of the point's piece begin. */
  private static int row(long[] data, int header, int[] point, int words) {
    int code = point[axis(data[header + AXIS])];
    return (int) data[header + ROWS] + piece(data, header, code) * words;
  }

  private static int axis(long header) {
    return (int) (header >>> 40) & 0xff;
  }

  /** The piece of an axis in which a code lies. */
  private static int piece(long[] data, int header, int code) {
    long axis = data[header + AXIS];
    long classes = data[header + CLASSES];
    int finder = (int) (data[header + ROWS] >>> 32);
    if ((axis & LISTED) != 0) {
      return listed(data, finder, (int) (classes >>> 32), code);
    }
    int own = (int) ((axis & FACTOR) * code >>> (axis >>> 32)) - (int) classes; // by its low bits
    int behind = Math.min(own, (int) (classes >>> 32)); // codes behind the last are one class
    if (finder == 0) {
      return behind;
    }
    long marks = data[finder + behind / MARKED];
    return (int) (marks >>> MARKED) + Integer.bitCount((int) marks & (2 << behind) - 1);
  }

  /** How many of some cuts are not above a code. */
  private static int listed(long[] data, int cuts, int count, int code) {
    int low = 0;
    int high = count;
    while (low < high) {
      int middle = (low + high) >>> 1;
      if ((int) (data[cuts + (middle >> 1)] >>> (middle << 5)) <= code) {
        low = middle + 1;
      } else {
        high = middle;
      }
    }
    return low;
  }

  /**
   * The first place at or behind which all boxes' rules stand at a position or behind; O(log
   * boxes).
   *
   * @param position of a box's rule
   */
  int place(int from, IntUnaryOperator position) {
    int low = 0;
    int high = size();
    while (low < high) {
      int middle = (low + high) >>> 1;
      if (position.applyAsInt(box(middle)) < from) {
        low = middle + 1;
      } else {
        high = middle;
      }
    }
    return low;
  }

  /**
   * The boxes that meet another, which meets the ranges of this block. O(pieces touched · boxes /
   * 64) at first, then as far as it is asked for O(boxes that meet it on the axes with rows).
   *
   * @param boxes by number
   * @param from the first place that is wanted
   * @param to one more than the last place that is wanted, above {@code from}
   * @param which only boxes with these numbers are wanted
   */
  Meets overlapping(Box other, List<Box> boxes, int from, int to, IntPredicate which) {
    return new Meets(other, boxes, from, to, which);
  }

  /** The boxes that meet another, one after the other, by position of their rules. */
  final class Meets {
    private final Box other;
    private final List<Box> boxes;
    private final IntPredicate which;
    private final long[] found; // a bit for each box that was not looked at yet
    private final int compared; // a bit for each axis on which the boxes are to be compared
    private int word; // the first with such bits

    private Meets(Box other, List<Box> boxes, int from, int to, IntPredicate which) {
      this.other = other;
      this.boxes = boxes;
      this.which = which;
      int words = longsOf(to);
      int present = present(data);
      found = Arrays.copyOfRange(data, present, present + words);
      word = from >> 6;
      found[word] &= -1L << from;
      found[words - 1] &= -1L >>> -to;
      long[] held = new long[words];
      for (int header = HEADERS; header < present; header += HEADER) {
        int number = axis(data[header + AXIS]);
        IntSet side = other.side(number);
        if (side == axes[number].whole) {
          continue;
        }
        Arrays.fill(held, 0);
        addRows(header, axes[number].range, side, held);
        for (int i = word; i < words; i++) {
          found[i] &= held[i];
        }
      }
      compared = narrowed(other) & ~(int) (data[BOXES] >>> ROWED);
    }

    /** The number of the next box, or {@link Cell#NONE}. */
    int next() {
      for (; word < found.length; word++) {
        while (found[word] != 0) {
          int number = box((word << 6) + Long.numberOfTrailingZeros(found[word]));
          found[word] &= found[word] - 1;
          if (which.test(number) && meet(boxes.get(number), other, compared)) {
            return number;
          }
        }
      }
      return Cell.NONE;
    }
  }

  /** A bit for each axis that a box narrows. */
  private int narrowed(Box box) {
    int out = 0;
    for (int axis = 0; axis < axes.length; axis++) {
      if (box.side(axis) != axes[axis].whole) {
        out |= 1 << axis;
      }
    }
    return out;
  }

  /** Whether two boxes meet on some axes. */
  private boolean meet(Box box, Box other, int some) {
    for (int left = some; left != 0; left &= left - 1) {
      int axis = Integer.numberOfTrailingZeros(left);
      IntSet side = box.side(axis);
      if (side != axes[axis].whole && !side.intersects(other.side(axis))) {
        return false;
      }
    }
    return true;
  }

  /** Adds the rows of all pieces that a side touches. */
  private void addRows(int header, IntSet range, IntSet side, long[] held) {
    int words = words(data);
    int low = range.min();
    int high = range.max();
    int rows = (int) data[header + ROWS];
    int next = 0; // the first piece that was not added
    for (int i = side.interval(low); i < side.intervals() && side.first(i) <= high; i++) {
      int piece = Math.max(next, piece(data, header, Math.max(low, side.first(i))));
      next = piece(data, header, Math.min(high, side.last(i))) + 1;
      for (; piece < next; piece++) {
        int row = rows + piece * words;
        for (int word = 0; word < held.length; word++) {
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
        data[at(data, i)] ^= (long) (number ^ other) << NUMBER;
        data[present + (i >> 6)] &= ~(1L << i);
      }
      other = box(i);
    }
  }
}
