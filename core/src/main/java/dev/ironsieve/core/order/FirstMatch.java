package dev.ironsieve.core.order;

import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.atomic.AtomicReferenceArray;
import java.util.function.IntConsumer;
import java.util.function.IntUnaryOperator;
import java.util.function.UnaryOperator;

/**
 * Which box is the first to hold a point. The axes of both ends are cut into segments; a box that
 * is narrow at both ends stands in the cells of its segments, a box that has a whole family at an
 * end stands once for all segments of that end:
 *
 * <pre>
 *              to 0   to 1   to any
 *   from 0     cell   cell    row        a question asks four of them: (f, t), (f, any),
 *   from 1     cell   cell    row        (any, t) and (any, any)
 *   from any   column column  rest
 * </pre>
 *
 * Cells are made when they are first asked; an edit changes them. Several threads may ask at once,
 * but not while a box is added or removed.
 */
final class FirstMatch {
  static final int NONE = Cell.NONE;

  /** A box that lies in more cells is not looked for in them. */
  private static final int MOST_CELLS = 64;

  private static final IntSet EVERY_LABEL = IntSet.range(0, Space.LABELS - 1);

  private final Space space;
  private final List<Box> boxes;
  private final IntUnaryOperator position; // of a box's rule
  private final int segments;
  private final int shift;
  private final Numbers[] bySegment; // boxes by segment of from, then those with any from
  private final AtomicReferenceArray<Cell> cells; // [from segment or any][to segment or any]
  private final IntSet[] whole; // by axis: the side that asks for nothing
  private final IntSet[] ranges; // by axis: the labels that a point can have, the unknown too

  /**
   * @param boxes by number; may grow
   * @param position the place of a box's rule in the order
   * @param rules how many rules to expect
   */
  FirstMatch(Space space, List<Box> boxes, IntUnaryOperator position, int rules) {
    this.space = space;
    this.boxes = boxes;
    this.position = position;
    int doublings = 31 - Integer.numberOfLeadingZeros(Math.max(1, rules / 64));
    int bits = Math.clamp(doublings / 2 + 1, 1, 6);
    segments = 1 << bits;
    shift = Integer.numberOfTrailingZeros(Space.LABELS) - bits;
    cells = new AtomicReferenceArray<>((segments + 1) * (segments + 1));
    bySegment = new Numbers[segments + 1];
    Arrays.setAll(bySegment, i -> new Numbers());
    whole = new IntSet[space.axes()];
    Arrays.setAll(whole, space::all);
    ranges = new IntSet[space.axes()];
    Arrays.setAll(ranges, axis -> axis < Space.TERMS ? space.all(axis) : EVERY_LABEL);
  }

  /** Whether the side has every address of the family that the box is of. */
  private boolean isWide(int end, IntSet side) {
    for (Family family : Family.values()) {
      if (side == space.family(end, family)) {
        return true;
      }
    }
    return false;
  }

  private int first(int end, IntSet side) {
    return isWide(end, side) ? segments : side.min() >>> shift;
  }

  private int last(int end, IntSet side) {
    return isWide(end, side) ? segments : side.max() >>> shift;
  }

  private boolean touches(IntSet side, int segment) {
    return segment == segments || side.meets(segment << shift, (segment + 1 << shift) - 1);
  }

  void add(int number) {
    eachSegment(number, segment -> bySegment[segment].add(number));
    change(number, cell -> cell.with(number));
  }

  void remove(int number) {
    eachSegment(number, segment -> bySegment[segment].remove(number));
    change(number, cell -> cell.without(number));
  }

  private void eachSegment(int number, IntConsumer action) {
    IntSet from = boxes.get(number).side(Space.FROM);
    for (int i = first(Space.FROM, from); i <= last(Space.FROM, from); i++) {
      if (touches(from, i)) {
        action.accept(i);
      }
    }
  }

  /** Changes the cells in which a box stands, as far as they have been made. */
  private void change(int number, UnaryOperator<Cell> change) {
    IntSet to = boxes.get(number).side(Space.TO);
    eachSegment(
        number,
        i -> {
          for (int j = first(Space.TO, to); j <= last(Space.TO, to); j++) {
            Cell known = cells.get(index(i, j));
            if (known != null && touches(to, j)) {
              cells.set(index(i, j), change.apply(known));
            }
          }
        });
  }

  private int index(int from, int to) {
    return from * (segments + 1) + to;
  }

  private Cell cell(int from, int to) {
    Cell known = cells.get(index(from, to));
    if (known == null) {
      known = make(from, to);
      cells.set(index(from, to), known); // Two threads may make the same; that is all.
    }
    return known;
  }

  private Cell make(int from, int to) {
    Numbers here = bySegment[from];
    int[] numbers = new int[here.size()];
    int count = 0;
    boolean sorted = true;
    for (int i = 0; i < here.size(); i++) {
      int number = here.get(i);
      IntSet side = boxes.get(number).side(Space.TO);
      if (isWide(Space.TO, side) == (to == segments) && touches(side, to)) {
        sorted &=
            count == 0 || position.applyAsInt(numbers[count - 1]) <= position.applyAsInt(number);
        numbers[count++] = number;
      }
    }
    numbers = Arrays.copyOf(numbers, count);
    if (!sorted) {
      numbers =
          Arrays.stream(numbers)
              .mapToLong(n -> (long) position.applyAsInt(n) << 32 | n)
              .sorted()
              .mapToInt(n -> (int) n)
              .toArray();
    }
    IntSet[] ranges = this.ranges.clone();
    ranges[Space.FROM] = range(Space.FROM, from);
    ranges[Space.TO] = range(Space.TO, to);
    return new Cell(boxes, position, numbers, ranges, whole);
  }

  private IntSet range(int end, int segment) {
    return segment == segments
        ? space.all(end)
        : IntSet.range(segment << shift, (segment + 1 << shift) - 1);
  }

  /**
   * The first box that holds the point and whose rule stands at {@code from} or behind; {@link
   * #NONE} if there is none. O(axes · (log boxes + boxes of the cells / 64)).
   */
  int find(int[] point, int from) {
    int f = point[Space.FROM] >>> shift;
    int t = point[Space.TO] >>> shift;
    int best = cell(f, t).find(point, from, Cell.NONE);
    best = cell(segments, t).find(point, from, best);
    best = cell(f, segments).find(point, from, best);
    return cell(segments, segments).find(point, from, best);
  }

  /**
   * Which boxes meet another.
   *
   * @param from lowest position of a rule wanted
   * @param to one more than the highest position wanted
   * @param make whether cells may be made for it
   * @return their numbers, by position; null if the box lies in so many cells, or would need so
   *     many to be made, that it is not quick
   */
  int[] meeting(Box other, int from, int to, boolean make) {
    IntSet side = other.side(Space.FROM);
    IntSet far = other.side(Space.TO);
    int f = side.min() >>> shift;
    int lastF = side.max() >>> shift;
    int t = far.min() >>> shift;
    int lastT = far.max() >>> shift;
    if ((lastF - f + 1L) * (lastT - t + 1L) > MOST_CELLS) {
      return null;
    }
    Found found = new Found();
    for (int i = f; i <= lastF + 1; i++) {
      int row = i > lastF ? segments : i;
      for (int j = t; j <= lastT + 1; j++) {
        int column = j > lastT ? segments : j;
        if ((i > lastF || touches(side, row)) && (j > lastT || touches(far, column))) {
          if (!make && cells.get(index(row, column)) == null) {
            return null;
          }
          cell(row, column).meeting(other, from, to, found);
        }
      }
    }
    return found.byPosition();
  }

  /** Numbers of boxes with the positions of their rules. */
  private static final class Found implements Cell.Taker {
    private long[] items = new long[32];
    private int size;

    @Override
    public void take(int position, int number) {
      if (size == items.length) {
        items = Arrays.copyOf(items, size * 2);
      }
      items[size++] = (long) position << 32 | number;
    }

    /** Each once. */
    int[] byPosition() {
      Arrays.sort(items, 0, size);
      int[] out = new int[size];
      int distinct = 0;
      for (int i = 0; i < size; i++) {
        if (i == 0 || items[i] != items[i - 1]) {
          out[distinct++] = (int) items[i];
        }
      }
      return Arrays.copyOf(out, distinct);
    }
  }
}
