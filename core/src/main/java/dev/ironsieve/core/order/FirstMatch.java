package dev.ironsieve.core.order;

import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.atomic.AtomicReferenceArray;
import java.util.function.IntUnaryOperator;

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
 * Cells are made when they are first asked, and again after an edit that concerns them. Several
 * threads may ask at once, but not while a box is added or removed.
 */
final class FirstMatch {
  static final int NONE = -1;

  private static final IntSet EVERY_LABEL = IntSet.range(0, Space.LABELS - 1);

  private final Space space;
  private final List<Box> boxes;
  private final IntUnaryOperator position; // of a box's rule
  private final int segments;
  private final int shift;
  private final Numbers[] bySegment; // boxes by segment of from, then those with any from
  private final AtomicReferenceArray<Block[]> cells; // [from segment or any][to segment or any]

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
    IntSet from = boxes.get(number).side(Space.FROM);
    for (int i = first(Space.FROM, from); i <= last(Space.FROM, from); i++) {
      if (touches(from, i)) {
        bySegment[i].add(number);
      }
    }
    forget(number);
  }

  void remove(int number) {
    IntSet from = boxes.get(number).side(Space.FROM);
    for (int i = first(Space.FROM, from); i <= last(Space.FROM, from); i++) {
      if (touches(from, i)) {
        bySegment[i].remove(number);
      }
    }
    forget(number);
  }

  private void forget(int number) {
    IntSet from = boxes.get(number).side(Space.FROM);
    IntSet to = boxes.get(number).side(Space.TO);
    for (int i = first(Space.FROM, from); i <= last(Space.FROM, from); i++) {
      for (int j = first(Space.TO, to); j <= last(Space.TO, to); j++) {
        cells.set(i * (segments + 1) + j, null);
      }
    }
  }

  private Block[] cell(int from, int to) {
    int index = from * (segments + 1) + to;
    Block[] known = cells.get(index);
    if (known == null) {
      known = make(from, to);
      cells.set(index, known); // Two threads may make the same; that is all.
    }
    return known;
  }

  private Block[] make(int from, int to) {
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
    IntSet[] ranges = new IntSet[space.axes()];
    Arrays.setAll(ranges, axis -> axis < Space.TERMS ? space.all(axis) : EVERY_LABEL);
    ranges[Space.FROM] = range(Space.FROM, from);
    ranges[Space.TO] = range(Space.TO, to);
    Block[] blocks = new Block[(count + Block.MOST - 1) / Block.MOST];
    for (int i = 0; i < blocks.length; i++) {
      int end = Math.min(count, (i + 1) * Block.MOST);
      blocks[i] = new Block(Arrays.copyOfRange(numbers, i * Block.MOST, end), this::asked, ranges);
    }
    return blocks;
  }

  /** The box, holding what is unknown on the axes of terms that it does not narrow. */
  private Box asked(int number) {
    Box box = boxes.get(number);
    for (int axis = Space.TERMS; axis < box.axes(); axis++) {
      if (box.side(axis) == space.all(axis)) {
        box = box.with(axis, EVERY_LABEL);
      }
    }
    return box;
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
    int best = find(cell(f, t), point, from, NONE);
    best = find(cell(segments, t), point, from, best);
    best = find(cell(f, segments), point, from, best);
    return find(cell(segments, segments), point, from, best);
  }

  /** The earlier one of {@code best} and the first box of {@code blocks}. */
  private int find(Block[] blocks, int[] point, int from, int best) {
    for (Block block : blocks) {
      int start = 0;
      if (from > 0) {
        if (position.applyAsInt(block.boxes[block.boxes.length - 1]) < from) {
          continue;
        }
        start = firstAt(block, from);
      }
      if (best != NONE && position.applyAsInt(block.boxes[start]) >= position.applyAsInt(best)) {
        return best;
      }
      int found = block.find(point, start);
      if (found >= 0) {
        int box = block.boxes[found];
        return best == NONE || position.applyAsInt(box) < position.applyAsInt(best) ? box : best;
      }
    }
    return best;
  }

  private int firstAt(Block block, int from) {
    int low = 0;
    int high = block.boxes.length - 1;
    while (low < high) {
      int middle = (low + high) >>> 1;
      if (position.applyAsInt(block.boxes[middle]) < from) {
        low = middle + 1;
      } else {
        high = middle;
      }
    }
    return low;
  }

  /** Bytes taken by the cells that have been made so far. */
  long bytes() {
    long bytes = 8L * cells.length();
    for (int i = 0; i < cells.length(); i++) {
      Block[] blocks = cells.get(i);
      if (blocks != null) {
        bytes += Arrays.stream(blocks).mapToLong(Block::bytes).sum();
      }
    }
    return bytes;
  }
}
