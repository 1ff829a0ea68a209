package dev.ironsieve.core.order;

import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
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
  private final Numbers[] byCell; // boxes; null where there is none
  private final AtomicReferenceArray<Cell> cells; // [from segment or any][to segment or any]
  private final AtomicReferenceArray<long[]> singles; // of the cells that have one, see Cell
  private final Block.Axis[] axes; // with all labels that a point can have, the unknown too

  /**
   * @param boxes by number; all that are there now are in
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
    singles = new AtomicReferenceArray<>(cells.length());
    byCell = new Numbers[cells.length()];
    axes = new Block.Axis[space.axes()];
    Arrays.setAll(
        axes,
        axis ->
            new Block.Axis(
                space.all(axis),
                axis < Space.TERMS ? space.all(axis) : EVERY_LABEL,
                space.step(axis)));
    for (int box = 0; box < boxes.size(); box++) {
      list(box);
    }
  }

  /**
   * The same for an order that goes on from another's. Cells that were made are not made again;
   * each order changes its own.
   *
   * @param boxes by number, all of the other's
   * @param position the place of a box's rule in the order
   */
  FirstMatch(FirstMatch other, List<Box> boxes, IntUnaryOperator position) {
    space = other.space;
    this.boxes = boxes;
    this.position = position;
    segments = other.segments;
    shift = other.shift;
    axes = other.axes;
    cells = new AtomicReferenceArray<>(other.cells.length());
    singles = new AtomicReferenceArray<>(cells.length());
    byCell = new Numbers[cells.length()];
    for (int i = 0; i < byCell.length; i++) {
      byCell[i] = other.byCell[i] == null ? null : new Numbers(other.byCell[i]);
      Cell known = other.cells.get(i);
      if (known != null) {
        put(i, known.in(boxes, position));
      }
    }
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

  void add(int number) {
    list(number);
    change(number, cell -> cell.with(number));
  }

  private void list(int number) {
    eachCell(
        number,
        cell -> {
          if (byCell[cell] == null) {
            byCell[cell] = new Numbers();
          }
          byCell[cell].add(number);
        });
  }

  void remove(int number) {
    eachCell(number, cell -> byCell[cell].remove(number));
    change(number, cell -> cell.without(number));
  }

  private void eachCell(int number, IntConsumer action) {
    Box box = boxes.get(number);
    eachSegment(
        Space.FROM,
        box.side(Space.FROM),
        from -> eachSegment(Space.TO, box.side(Space.TO), to -> action.accept(index(from, to))));
  }

  private void eachSegment(int end, IntSet side, IntConsumer action) {
    if (isWide(end, side)) {
      action.accept(segments);
      return;
    }
    for (int segment : side.shifted(shift)) {
      action.accept(segment);
    }
  }

  /** Changes the cells in which a box stands, as far as they have been made. */
  private void change(int number, UnaryOperator<Cell> change) {
    eachCell(
        number,
        cell -> {
          Cell known = cells.get(cell);
          if (known != null) {
            put(cell, change.apply(known));
          }
        });
  }

  private void put(int index, Cell cell) {
    cells.set(index, cell);
    singles.set(index, cell == null ? null : cell.single());
  }

  private int index(int from, int to) {
    return from * (segments + 1) + to;
  }

  private Cell cell(int from, int to) {
    Cell known = cells.get(index(from, to));
    if (known == null) {
      known = make(from, to);
      put(index(from, to), known); // Two threads may make the same; that is all.
    }
    return known;
  }

  private Cell make(int from, int to) {
    Numbers here = byCell[index(from, to)];
    int[] numbers = here == null ? new int[0] : here.toArray();
    if (!isByPosition(numbers)) {
      numbers =
          Arrays.stream(numbers)
              .mapToLong(n -> (long) position.applyAsInt(n) << 32 | n)
              .sorted()
              .mapToInt(n -> (int) n)
              .toArray();
    }
    Block.Axis[] own = axes.clone();
    own[Space.FROM] = segment(Space.FROM, from);
    own[Space.TO] = segment(Space.TO, to);
    return new Cell(boxes, position, numbers, own);
  }

  private boolean isByPosition(int[] numbers) {
    for (int i = 1; i < numbers.length; i++) {
      if (position.applyAsInt(numbers[i - 1]) > position.applyAsInt(numbers[i])) {
        return false;
      }
    }
    return true;
  }

  private Block.Axis segment(int end, int segment) {
    if (segment == segments) {
      return axes[end];
    }
    IntSet labels = IntSet.range(segment << shift, (segment + 1 << shift) - 1);
    return new Block.Axis(axes[end].whole(), labels, axes[end].step());
  }

  /**
   * The first box that holds the point and whose rule stands at {@code from} or behind; {@link
   * #NONE} if there is none. O(axes · (log boxes + boxes of the cells / 64)).
   */
  int find(int[] point, int from) {
    int f = point[Space.FROM] >>> shift;
    int t = point[Space.TO] >>> shift;
    int best = find(f, t, point, from, Cell.NONE);
    best = find(segments, t, point, from, best);
    best = find(f, segments, point, from, best);
    return find(segments, segments, point, from, best);
  }

  /** The earlier one of {@code best} and the first in a cell. */
  private int find(int f, int t, int[] point, int from, int best) {
    long[] data = singles.get(index(f, t));
    if (data == null) {
      return cell(f, t).find(point, from, best);
    }
    int found = Block.find(data, point, from, position);
    return found == NONE || best != NONE && position.applyAsInt(best) < position.applyAsInt(found)
        ? best
        : found;
  }

  /**
   * Takes the boxes that hold the point and whose rules stand above a place, the first few at
   * least, in no order.
   *
   * @param most how many are needed
   */
  void holding(int[] point, int end, int most, IntConsumer taker) {
    int f = point[Space.FROM] >>> shift;
    int t = point[Space.TO] >>> shift;
    cell(f, t).holding(point, end, most, taker);
    cell(segments, t).holding(point, end, most, taker);
    cell(f, segments).holding(point, end, most, taker);
    cell(segments, segments).holding(point, end, most, taker);
  }

  /**
   * The cells in which all boxes stand that meet another.
   *
   * @param make whether cells may be made for it
   * @return null if the box lies in so many cells, or would need so many to be made, that it is not
   *     quick
   */
  List<Cell> cells(Box other, boolean make) {
    int[] rows = withWide(other.side(Space.FROM).shifted(shift));
    int[] columns = withWide(other.side(Space.TO).shifted(shift));
    if ((rows.length - 1) * (columns.length - 1) > MOST_CELLS) {
      return null;
    }
    List<Cell> out = new ArrayList<>(rows.length * columns.length);
    for (int row : rows) {
      for (int column : columns) {
        if (!make && cells.get(index(row, column)) == null) {
          return null;
        }
        out.add(cell(row, column));
      }
    }
    return out;
  }

  private int[] withWide(int[] some) {
    int[] out = Arrays.copyOf(some, some.length + 1);
    out[some.length] = segments;
    return out;
  }
}
