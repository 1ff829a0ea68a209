package dev.ironsieve.core.ruleindex;

import dev.ironsieve.core.space.Box;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntConsumer;
import java.util.function.IntPredicate;
import java.util.function.IntUnaryOperator;

/**
 * The boxes of one cell of {@link FirstMatch}: in blocks, by position of their rules, and the few
 * that came since the blocks were made.
 */
final class Cell {
  static final int NONE = -1;

  /** With more boxes that came late it is better made anew. */
  private static final int MOST_LATE = 6;

  private static final int[] NOBODY = {};

  private final List<Box> boxes;
  private final IntUnaryOperator position;
  private final BoxRecords records;
  private final Block[] blocks;
  private final int[] late; // numbers

  /**
   * @param boxes by number
   * @param position of a box's rule
   * @param numbers of the boxes, by position
   * @param records of all boxes
   * @param axes by number
   * @param worth see {@link Block}
   */
  Cell(
      List<Box> boxes,
      IntUnaryOperator position,
      int[] numbers,
      BoxRecords records,
      Block.Axis[] axes,
      int worth) {
    this(
        boxes,
        position,
        records,
        new Block[(numbers.length + Block.MOST - 1) / Block.MOST],
        NOBODY);
    for (int i = 0; i < blocks.length; i++) {
      int end = Math.min(numbers.length, (i + 1) * Block.MOST);
      int[] own = Arrays.copyOfRange(numbers, i * Block.MOST, end);
      Box[] held = new Box[own.length];
      Arrays.setAll(held, k -> boxes.get(own[k]));
      blocks[i] = new Block(own, held, records, axes, worth);
    }
  }

  private Cell(
      List<Box> boxes, IntUnaryOperator position, BoxRecords records, Block[] blocks, int[] late) {
    this.boxes = boxes;
    this.position = position;
    this.records = records;
    this.blocks = blocks;
    this.late = late;
  }

  /** With one more box; null if it is better made anew. */
  Cell with(int number) {
    if (late.length == MOST_LATE) {
      return null;
    }
    int[] more = Arrays.copyOf(late, late.length + 1);
    more[late.length] = number;
    return new Cell(boxes, position, records, blocks, more);
  }

  /** Without a box that it has; this cell is not to be used any more. */
  Cell without(int number) {
    int[] others = Arrays.stream(late).filter(n -> n != number).toArray();
    if (others.length < late.length) {
      return new Cell(boxes, position, records, blocks, others);
    }
    Block[] left = blocks.clone();
    Arrays.setAll(left, i -> left[i].without(number));
    return new Cell(boxes, position, records, left, late);
  }

  /**
   * The same boxes in another order.
   *
   * @param otherBoxes by number, those of this cell the same
   * @param otherPosition of a box's rule
   * @param otherRecords of all these boxes
   */
  Cell in(List<Box> otherBoxes, IntUnaryOperator otherPosition, BoxRecords otherRecords) {
    for (Block block : blocks) {
      block.share();
    }
    return new Cell(otherBoxes, otherPosition, otherRecords, blocks, late);
  }

  /**
   * The data of the only block, see {@link Block#data}; null if there are several, or late boxes.
   */
  long[] single() {
    return blocks.length == 1 && late.length == 0 ? blocks[0].data() : null;
  }

  /**
   * The earlier one of {@code best} and the first box here that holds the point and whose rule
   * stands at {@code from} or behind.
   */
  int find(int[] point, int from, int best) {
    int found = findInBlocks(point, from, best);
    for (int number : late) {
      if (position.applyAsInt(number) >= from && isEarlier(number, found) && holds(number, point)) {
        found = number;
      }
    }
    return found;
  }

  private boolean holds(int number, int[] point) {
    return records.holds(records.start(number), number, point, 0);
  }

  private boolean isEarlier(int number, int best) {
    return best == NONE || position.applyAsInt(number) < position.applyAsInt(best);
  }

  private int findInBlocks(int[] point, int from, int best) {
    for (Block block : blocks) {
      if (from > 0 && position.applyAsInt(block.box(block.size() - 1)) < from) {
        continue;
      }
      if (best != NONE && !isEarlier(block.box(0), best)) {
        return best;
      }
      int found = Block.find(block.data(), point, from, position, records);
      if (found != NONE) {
        return isEarlier(found, best) ? found : best;
      }
    }
    return best;
  }

  /**
   * Passes on the numbers of the boxes here that hold a point and whose rules are above a place,
   * the first few at least.
   *
   * @param most how many are needed
   */
  void holding(int[] point, int end, int most, IntConsumer taker) {
    int left = most;
    for (int i = 0; i < blocks.length && left > 0; i++) {
      int[] holding = blocks[i].holding(point, left, records);
      left -= holding.length;
      for (int number : holding) {
        if (position.applyAsInt(number) >= end) {
          left = 0;
          break;
        }
        taker.accept(number);
      }
    }
    for (int number : late) {
      if (position.applyAsInt(number) < end && holds(number, point)) {
        taker.accept(number);
      }
    }
  }

  /**
   * The boxes here that meet another, which lies in this cell.
   *
   * @param from lowest position wanted, of a box's rule
   * @param to one more than the highest position wanted
   * @param which only boxes with these numbers are wanted
   */
  Meets overlapping(Box other, int from, int to, IntPredicate which) {
    return new Meets(other, from, to, which);
  }

  /** The boxes here that meet another, one after the other; looked for as they are asked for. */
  final class Meets {
    private final Box other;
    private final int from;
    private final int to;
    private final IntPredicate which;
    private int nextLate;
    private int nextBlock;
    private Block.Meets inBlock; // null before the first

    private Meets(Box other, int from, int to, IntPredicate which) {
      this.other = other;
      this.from = from;
      this.to = to;
      this.which = which;
    }

    /** The number of the next box, or {@link #NONE}. */
    int next() {
      while (nextLate < late.length) {
        int number = late[nextLate++];
        if (isInRange(number) && which.test(number) && boxes.get(number).intersects(other)) {
          return number;
        }
      }
      int found = inBlock == null ? NONE : inBlock.next();
      while (found == NONE && nextBlock < blocks.length) {
        Block block = blocks[nextBlock++];
        int first = block.place(from, position);
        int end = block.place(to, position);
        if (first < end) {
          inBlock = block.overlapping(other, boxes, first, end, which);
          found = inBlock.next();
        }
      }
      return found;
    }

    private boolean isInRange(int number) {
      int own = position.applyAsInt(number);
      return own >= from && own < to;
    }
  }
}
