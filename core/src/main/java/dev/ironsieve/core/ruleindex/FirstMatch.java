package dev.ironsieve.core.ruleindex;

import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.atomic.AtomicReferenceArray;
import java.util.function.IntConsumer;
import java.util.function.IntPredicate;
import java.util.function.IntUnaryOperator;
import java.util.function.UnaryOperator;

/**
 * An index that finds the first box that holds a point. The axes of both ends are cut into
 * segments; a box stands in the cells of its segments, or, if it has a whole family at both ends,
 * in the rest:
 *
 * <pre>
 *              to 0   to 1
 *   from 0     cell   cell        a question asks its cell and the rest
 *   from 1     cell   cell
 *                            rest
 * </pre>
 *
 * Cells are made when they are first asked; an edit changes them. Several threads may ask at once,
 * but not while a box is added or removed.
 */
final class FirstMatch {
  static final int NONE = Cell.NONE;

  /** A box that lies in more cells is not looked for in them. */
  private static final int MOST_CELLS = 64;

  /** Of one box less in question, in longs of rows; what only one cell has may be large. */
  private static final int WORTH = 500;

  private static final int WORTH_IN_REST = 50_000;

  private static final IntSet EVERY_LABEL = IntSet.range(0, Space.CODES - 1);

  private final Space space;
  private final List<Box> boxes;
  private final BoxRecords records; // of all boxes
  private final IntUnaryOperator position; // of a box's rule
  private final int segments; // of one end
  private final int rest; // the number of its cell
  private final int shift;
  private final IntList[] byCell; // boxes; null where there is none
  private final AtomicReferenceArray<Cell> cells; // [from segment][to segment], rest
  private final AtomicReferenceArray<long[]> singles; // of the cells that have one, see Cell
  private final Block.Axis[] axes; // with all codes that a point can have, the unknown too

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
    shift = Integer.numberOfTrailingZeros(Space.CODES) - bits;
    rest = segments * segments;
    cells = new AtomicReferenceArray<>(rest + 1);
    singles = new AtomicReferenceArray<>(cells.length());
    byCell = new IntList[cells.length()];
    axes = new Block.Axis[space.axes()];
    Arrays.setAll(
        axes,
        axis ->
            new Block.Axis(
                space.all(axis),
                axis < Space.TERMS ? space.all(axis) : EVERY_LABEL,
                space.step(axis)));
    records =
        new BoxRecords(Arrays.stream(axes).map(Block.Axis::whole).toArray(IntSet[]::new), boxes);
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
    records = new BoxRecords(other.records, boxes);
    segments = other.segments;
    rest = other.rest;
    shift = other.shift;
    axes = other.axes;
    cells = new AtomicReferenceArray<>(other.cells.length());
    singles = new AtomicReferenceArray<>(cells.length());
    byCell = new IntList[cells.length()];
    for (int i = 0; i < byCell.length; i++) {
      byCell[i] = other.byCell[i] == null ? null : new IntList(other.byCell[i]);
      Cell known = other.cells.get(i);
      if (known != null) {
        put(i, known.in(boxes, position, records));
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
    if (number == records.size()) {
      records.add(boxes.get(number));
    }
    list(number);
    change(number, cell -> cell.with(number));
  }

  private void list(int number) {
    eachCell(
        number,
        cell -> {
          if (byCell[cell] == null) {
            byCell[cell] = new IntList();
          }
          byCell[cell].add(number);
        });
  }

  void remove(int number) {
    eachCell(number, cell -> byCell[cell].remove(number));
    change(number, cell -> cell.without(number));
  }

  private void eachCell(int number, IntConsumer action) {
    IntSet from = boxes.get(number).side(Space.FROM);
    IntSet to = boxes.get(number).side(Space.TO);
    if (isWide(Space.FROM, from) && isWide(Space.TO, to)) {
      action.accept(rest);
      return;
    }
    int[] columns = to.shifted(shift);
    for (int row : from.shifted(shift)) {
      for (int column : columns) {
        action.accept(index(row, column));
      }
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
    return from * segments + to;
  }

  private int index(int[] point) {
    return index(point[Space.FROM] >>> shift, point[Space.TO] >>> shift);
  }

  private Cell cell(int index) {
    Cell known = cells.get(index);
    if (known == null) {
      known = make(index);
      put(index, known); // Two threads may make the same; that is all.
    }
    return known;
  }

  private Cell make(int index) {
    IntList here = byCell[index];
    int[] numbers = here == null ? new int[0] : here.toArray();
    if (!isByPosition(numbers)) {
      numbers =
          Arrays.stream(numbers)
              .mapToLong(n -> (long) position.applyAsInt(n) << 32 | n)
              .sorted()
              .mapToInt(n -> (int) n)
              .toArray();
    }
    Block.Axis[] own = axes;
    if (index != rest) {
      own = axes.clone();
      own[Space.FROM] = segment(Space.FROM, index / segments);
      own[Space.TO] = segment(Space.TO, index % segments);
    }
    return new Cell(boxes, position, numbers, records, own, index == rest ? WORTH_IN_REST : WORTH);
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
    IntSet codes = IntSet.range(segment << shift, (segment + 1 << shift) - 1);
    return new Block.Axis(axes[end].whole(), codes, axes[end].step());
  }

  /**
   * The first box that holds the point and whose rule stands at {@code from} or behind; {@link
   * #NONE} if there is none. O(boxes of the cells / 64 + what the boxes in question say).
   */
  int find(int[] point, int from) {
    return find(rest, point, from, find(index(point), point, from, NONE));
  }

  /** The earlier one of {@code best} and the first in a cell. */
  private int find(int cell, int[] point, int from, int best) {
    long[] data = singles.get(cell);
    if (data == null) {
      return cell(cell).find(point, from, best);
    }
    int found = Block.find(data, point, from, position, records);
    return found == NONE || best != NONE && position.applyAsInt(best) < position.applyAsInt(found)
        ? best
        : found;
  }

  /**
   * Passes on the boxes that hold the point and whose rules are above a place, the first few at
   * least, in no order.
   *
   * @param most how many are needed
   */
  void holding(int[] point, int end, int most, IntConsumer taker) {
    cell(index(point)).holding(point, end, most, taker);
    cell(rest).holding(point, end, most, taker);
  }

  /**
   * A cell to look into.
   *
   * @param fresh which of its boxes cannot have been found in the cells before
   */
  record Look(Cell cell, IntPredicate fresh) {
    /** Those of them that meet a box; see {@link Cell#overlapping}. */
    Cell.Meets overlapping(Box box, int from, int to, IntPredicate which) {
      return cell.overlapping(box, from, to, which.and(fresh));
    }
  }

  /**
   * The cells in which all boxes stand that meet another.
   *
   * @param make whether cells may be made for it
   * @return null if the box lies in so many cells, or would need so many to be made, that it is not
   *     quick
   */
  List<Look> cells(Box other, boolean make) {
    int[] rows = other.side(Space.FROM).shifted(shift);
    int[] columns = other.side(Space.TO).shifted(shift);
    if (rows.length * columns.length > MOST_CELLS) {
      return null;
    }
    boolean once =
        isOfOneFamily(Space.FROM, other.side(Space.FROM))
            && isOfOneFamily(Space.TO, other.side(Space.TO));
    List<Look> out = new ArrayList<>(rows.length * columns.length + 1);
    for (int row = 0; row < rows.length; row++) {
      for (int column = 0; column < columns.length; column++) {
        int index = index(rows[row], columns[column]);
        if (!make && cells.get(index) == null) {
          return null;
        }
        out.add(new Look(cell(index), fresh(once && row > 0, once && column > 0)));
      }
    }
    out.add(new Look(cell(rest), number -> true));
    return out;
  }

  private boolean isOfOneFamily(int end, IntSet side) {
    for (Family family : Family.values()) {
      if (space.family(end, family).containsAll(side)) {
        return true;
      }
    }
    return false;
  }

  /** Boxes that are wide at an end stand in the first row, or column, of their family, too. */
  private IntPredicate fresh(boolean notFirstRow, boolean notFirstColumn) {
    return number ->
        !(notFirstRow && isWide(Space.FROM, boxes.get(number).side(Space.FROM)))
            && !(notFirstColumn && isWide(Space.TO, boxes.get(number).side(Space.TO)));
  }
}
