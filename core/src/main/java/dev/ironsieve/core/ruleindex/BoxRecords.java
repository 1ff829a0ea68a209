package dev.ironsieve.core.ruleindex;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.Arrays;
import java.util.List;

/**
 * The narrowed sides of boxes, those of each box side by side, so that whether it holds a point
 * takes few reads far from each other:
 *
 * <pre>
 *   record:  [ axis, the last first | intervals, ascending ... | axis ... | END ]
 *   axis:    its number | how many intervals << 8, none if there are so many that the box is asked
 * </pre>
 */
final class BoxRecords {
  private static final int END = 0xff; // instead of an axis
  private static final int COUNT = 8; // places to shift
  private static final int FIRST = 32; // of an interval, behind the last

  /** A side of more intervals, which other boxes may have too, is not written once more. */
  private static final int MOST = 64;

  private final List<Box> boxes;
  private final IntSet[] whole; // by axis
  private long[] data;
  private int end; // of all records
  private final IntList starts;

  /**
   * @param whole the side of a box that does not narrow an axis, by axis
   * @param boxes by number; all that are there now are in
   */
  BoxRecords(IntSet[] whole, List<Box> boxes) {
    this.boxes = boxes;
    this.whole = whole;
    data = new long[16 * boxes.size() + 16];
    starts = new IntList();
    boxes.forEach(this::add);
    data = Arrays.copyOf(data, end);
  }

  /** The same to go on from with other boxes. */
  BoxRecords(BoxRecords other, List<Box> boxes) {
    this.boxes = boxes;
    whole = other.whole;
    data = Arrays.copyOf(other.data, other.end);
    end = other.end;
    starts = new IntList(other.starts);
  }

  /** Writes down the box with the next number. */
  void add(Box box) {
    starts.add(end);
    for (int axis = whole.length - 1; axis >= 0; axis--) {
      IntSet side = box.side(axis);
      if (side != whole[axis]) {
        int count = side.intervals() > MOST ? 0 : side.intervals();
        write(axis | (long) count << COUNT);
        for (int i = 0; i < count; i++) {
          write(side.last(i) | (long) side.first(i) << FIRST);
        }
      }
    }
    write(END);
  }

  private void write(long part) {
    if (end == data.length) {
      data = Arrays.copyOf(data, end + end / 4 + 16);
    }
    data[end++] = part;
  }

  /** The number of boxes. */
  int size() {
    return starts.size();
  }

  /** Where the record of a box begins. */
  int start(int number) {
    return starts.get(number);
  }

  /**
   * Whether a box holds a point, of which terms may be unknown.
   *
   * @param start of its record
   * @param known a bit for each axis on which it is known to hold it
   */
  boolean holds(int start, int number, int[] point, int known) {
    int at = start;
    for (int axis = axis(at); axis != END; axis = axis(at)) {
      int count = (int) (data[at++] >>> COUNT);
      if ((known >>> axis & 1) == 0) {
        int code = point[axis];
        if (count == 0
            ? !boxes.get(number).side(axis).contains(code)
            : !isInside(at, count, code)) {
          return false;
        }
      }
      at += count;
    }
    return true;
  }

  private int axis(int at) {
    return (int) data[at] & END;
  }

  /** Whether a code is in one of some intervals. */
  private boolean isInside(int from, int count, int code) {
    int at = from;
    while (at < from + count && (int) data[at] < code) {
      at++;
    }
    return at < from + count && (int) (data[at] >>> FIRST) <= code;
  }
}
