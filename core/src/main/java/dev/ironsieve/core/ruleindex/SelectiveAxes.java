package dev.ironsieve.core.ruleindex;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;

/**
 * Chooses the axes on which a block of boxes gets rows of bits: those that tell the most boxes
 * apart for the memory that their rows take. O(boxes · axes) and, per chosen axis, O(bounds).
 */
final class SelectiveAxes {
  private static final int[] NO_CUTS = {};

  private final Box[] all;
  private final Block.Axis[] axes;
  private final int words; // of a row
  private int[] found = new int[256]; // cuts of one axis
  private int count; // of them

  SelectiveAxes(Box[] all, Block.Axis[] axes) {
    this.all = all;
    this.axes = axes;
    words = BlockFormat.longsOf(all.length);
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
  record Rowed(int axis, int[] cuts) {}

  /**
   * The axes that are worth rows, the most narrowing first.
   *
   * @param worth how many longs of rows one box less to compare is worth
   */
  List<Rowed> chosen(int worth) {
    List<Rowed> rowed = new ArrayList<>();
    double left = all.length;
    for (Narrowed axis : mostNarrowingFirst()) {
      double behind = left * axis.held / all.length;
      double worthIt =
          rowed.size() < BlockFormat.LEAST ? Double.MAX_VALUE : (left - behind) * worth;
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

  /** The average number of boxes that contain a code of the range. */
  private double held(Block.Axis axis, int number) {
    double width = axis.range().max() - axis.range().min() + 1.0;
    double sum = 0;
    double last = 1;
    IntSet before = axis.whole();
    for (Box box : all) {
      IntSet side = box.side(number);
      if (side != before) {
        before = side;
        double held =
            side == axis.whole() ? width : held(side, axis.range().min(), axis.range().max());
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
    Block.Axis axis = axes[number];
    IntSet before = axis.whole();
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

  private void find(IntSet side, Block.Axis axis) {
    if (side == axis.whole()) {
      return;
    }
    int low = axis.range().min();
    int high = axis.range().max();
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
  private int[] ascending(Block.Axis axis) {
    int[] marked = marked(axis);
    return marked == null ? sorted() : marked;
  }

  /**
   * The cuts by the classes that begin with them, each marked with a bit, which is quicker than to
   * sort what many boxes have in common.
   *
   * @return null if some lie inside of classes, or there are many more classes than cuts
   */
  private int[] marked(Block.Axis axis) {
    int base = axis.range().min() / axis.step();
    int classes = Math.min(axis.range().max(), axis.whole().max() + 1) / axis.step() - base;
    if (classes >> 6 > count) {
      return null;
    }
    long[] marks = new long[(classes >> 6) + 1];
    for (int i = 0; i < count; i++) {
      int mark = found[i] / axis.step() - base;
      if ((mark + base) * axis.step() != found[i] || mark > classes) {
        return null;
      }
      marks[mark >> 6] |= 1L << mark;
    }
    int next = 0;
    for (int word = 0; word < marks.length; word++) {
      for (long left = marks[word]; left != 0; left &= left - 1) {
        found[next++] = ((word << 6) + Long.numberOfTrailingZeros(left) + base) * axis.step();
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
}
