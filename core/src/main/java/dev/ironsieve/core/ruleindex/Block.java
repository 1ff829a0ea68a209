package dev.ironsieve.core.ruleindex;

import static dev.ironsieve.core.ruleindex.BlockFormat.AXIS;
import static dev.ironsieve.core.ruleindex.BlockFormat.END_OF_LEAST;
import static dev.ironsieve.core.ruleindex.BlockFormat.HEADER;
import static dev.ironsieve.core.ruleindex.BlockFormat.HEADERS;
import static dev.ironsieve.core.ruleindex.BlockFormat.NUMBER;
import static dev.ironsieve.core.ruleindex.BlockFormat.ROWS;
import static dev.ironsieve.core.ruleindex.BlockFormat.at;
import static dev.ironsieve.core.ruleindex.BlockFormat.axis;
import static dev.ironsieve.core.ruleindex.BlockFormat.longsOf;
import static dev.ironsieve.core.ruleindex.BlockFormat.piece;
import static dev.ironsieve.core.ruleindex.BlockFormat.present;
import static dev.ironsieve.core.ruleindex.BlockFormat.row;
import static dev.ironsieve.core.ruleindex.BlockFormat.rowed;
import static dev.ironsieve.core.ruleindex.BlockFormat.words;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.Arrays;
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
 * <p>{@link BlockFormat} draws how that lies in memory, {@link BlockBuilder} writes it.
 */
final class Block {
  /** Most boxes in one block. */
  static final int MOST = 512;

  /**
   * The properties of an axis that a block needs.
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
   * @param worth see {@link SelectiveAxes#chosen}
   */
  Block(int[] numbers, Box[] all, BoxRecords records, Axis[] axes, int worth) {
    this.axes = axes;
    data = BlockBuilder.build(numbers, all, records, axes, worth);
  }

  private Block(Block other) {
    axes = other.axes;
    data = other.data.clone();
  }

  /** Several orders have this block from now on: each will change its own. */
  void share() {
    shared = true;
  }

  /** The number of boxes. */
  int size() {
    return BlockFormat.size(data);
  }

  /** The number of a box by its place, from 0. */
  int box(int place) {
    return BlockFormat.box(data, place);
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
          int box = BlockFormat.box(data, place);
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
    return records.holds((int) box, (int) (box >>> NUMBER), point, rowed(data));
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
      compared = narrowed(other) & ~rowed(data);
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
