package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.Standing;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.Arrays;
import java.util.function.IntPredicate;

/**
 * The points that rules decide, for the question which of them lie in a rule. Most pairs of rules
 * that meet are told apart by such a point without ever being compared. Made once, when all rules
 * are asked about; an edit makes it outdated.
 *
 * <p>The labels of both ends are cut into segments. The points of a cell, which is a segment of one
 * end with one of the other, stand together, by position of their rules:
 *
 * <pre>
 *   starts:     where each cell begins among the entries, then how many entries there are
 *   slots:      [ entry 0, entry 1, ... ]
 *   positions:  [ entry 0, entry 1, ... ]
 *   labels:     for each axis [ entry 0, entry 1, ... ]
 * </pre>
 */
final class Witnesses {
  private static final int MOST_BITS = 6;

  /** Rules for each cell, about. */
  private static final int RULES_PER_CELL = 16;

  private final Order order;
  private final int axes;
  private final int shift;
  private final int segments;
  private final int[] starts;
  private final int[] slots;
  private final int[] positions;
  private final int[][] labels;
  private final Verdict[] verdicts;

  /**
   * @param standings by slot
   */
  Witnesses(Order order, Standing[] standings) {
    this.order = order;
    axes = order.space().axes();
    int doublings = 31 - Integer.numberOfLeadingZeros(1 + order.size() / RULES_PER_CELL);
    int bits = Math.min(MOST_BITS, doublings / 2);
    segments = 1 << bits;
    shift = Integer.numberOfTrailingZeros(Space.LABELS) - bits;
    starts = new int[segments * segments + 1];
    for (int i = 0; i < order.size(); i++) {
      if (standings[order.slotAt(i)] instanceof Standing.Decides decides) {
        starts[cell(decides.point()) + 1]++;
      }
    }
    for (int cell = 1; cell < starts.length; cell++) {
      starts[cell] += starts[cell - 1];
    }
    int count = starts[starts.length - 1];
    slots = new int[count];
    positions = new int[count];
    labels = new int[axes][count];
    verdicts = new Verdict[count];
    int[] next = Arrays.copyOf(starts, starts.length);
    for (int i = 0; i < order.size(); i++) {
      int slot = order.slotAt(i);
      if (standings[slot] instanceof Standing.Decides decides) {
        int entry = next[cell(decides.point())]++;
        slots[entry] = slot;
        positions[entry] = i;
        verdicts[entry] = order.verdict(slot);
        for (int axis = 0; axis < axes; axis++) {
          labels[axis][entry] = decides.point()[axis];
        }
      }
    }
  }

  private int cell(int[] point) {
    return (point[Space.FROM] >>> shift) * segments + (point[Space.TO] >>> shift);
  }

  /**
   * The highest rule above {@code slot}, with another verdict, whose point lies in it and for which
   * a test holds; or {@link Order#NONE}.
   */
  int firstInside(int slot, IntPredicate test) {
    int best = Order.NONE;
    for (Box box : order.region(slot)) {
      best = firstInside(slot, box, best, test);
    }
    return best;
  }

  private int firstInside(int slot, Box box, int before, IntPredicate test) {
    int best = before;
    Verdict verdict = order.verdict(slot);
    int[] narrowed = narrowed(box);
    int[] to = box.side(Space.TO).shifted(shift);
    for (int i : box.side(Space.FROM).shifted(shift)) {
      for (int j : to) {
        int cell = i * segments + j;
        int limit = order.position(best == Order.NONE ? slot : best);
        for (int entry = starts[cell]; entry < starts[cell + 1]; entry++) {
          if (positions[entry] >= limit) {
            break;
          }
          if (verdicts[entry] != verdict
              && holds(box, narrowed, entry)
              && test.test(slots[entry])) {
            best = slots[entry];
            break;
          }
        }
      }
    }
    return best;
  }

  /** The axes on which a box leaves something out; those on which it leaves out the most first. */
  private int[] narrowed(Box box) {
    int[] out = new int[axes];
    int count = 0;
    for (int axis = 0; axis < axes; axis++) {
      IntSet side = box.side(axis);
      if (side != order.space().all(axis)) {
        int at = count++;
        for (; at > 0 && side.size() < box.side(out[at - 1]).size(); at--) {
          out[at] = out[at - 1];
        }
        out[at] = axis;
      }
    }
    return Arrays.copyOf(out, count);
  }

  private boolean holds(Box box, int[] narrowed, int entry) {
    for (int axis : narrowed) {
      if (!box.side(axis).contains(labels[axis][entry])) {
        return false;
      }
    }
    return true;
  }
}
