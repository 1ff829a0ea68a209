package dev.ironsieve.core.analysis;

import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.Arrays;
import java.util.IdentityHashMap;
import java.util.Map;

/**
 * The corner of a box where the fewest rules meet: on each axis the class that the fewest boxes
 * hold. A guess for where a rule still decides something, right for most rules. Counted once; after
 * edits the counts are old, and the guess a little worse. Not safe for several threads at once.
 */
final class Corners {
  /** Classes for which the lowest count is kept. */
  private static final int STRIDE = 64;

  /** Labels that a side has to span to be worth remembering. */
  private static final int WIDE = Space.LABELS >> 8;

  private static final int MOST_KNOWN = 10_000;

  private final int[][] labels; // [axis] lowest label of each class, when counted
  private final int[][] weights; // [axis][class]
  private final int[][] lightest; // [axis][stride] the class of that stride with the lowest count
  private final Map<IntSet, Integer>[] known;

  /** Counts, for several places in the order, the boxes of the rules before each place. */
  static Corners[] upTo(Order order, int places) {
    Space space = order.space();
    int[][] labels = new int[space.axes()][];
    int[][] steps = new int[space.axes()][];
    for (int axis = 0; axis < labels.length; axis++) {
      labels[axis] = new int[space.classes(axis)];
      for (int rank = 0; rank < labels[axis].length; rank++) {
        labels[axis][rank] = space.label(axis, rank);
      }
      steps[axis] = new int[labels[axis].length + 1];
    }
    Corners[] out = new Corners[places];
    int position = 0;
    for (int place = 0; place < places; place++) {
      int end = (int) ((long) order.size() * (place + 1) / places);
      for (; position < end; position++) {
        int slot = order.slotAt(position);
        if (order.rule(slot).enabled()) {
          for (Box box : order.region(slot)) {
            count(space, box, steps);
          }
        }
      }
      out[place] = new Corners(labels, steps);
    }
    return out;
  }

  private static void count(Space space, Box box, int[][] steps) {
    for (int axis = 0; axis < steps.length; axis++) {
      IntSet side = box.side(axis);
      if (side == space.all(axis)) {
        continue; // the same for every class
      }
      for (int i = 0; i < side.intervals(); i++) {
        steps[axis][space.rank(axis, side.first(i))]++;
        steps[axis][space.rank(axis, side.last(i) + 1)]--;
      }
    }
  }

  @SuppressWarnings({"unchecked", "rawtypes"})
  private Corners(int[][] labels, int[][] steps) {
    this.labels = labels;
    weights = new int[labels.length][];
    lightest = new int[labels.length][];
    known = new Map[labels.length];
    for (int axis = 0; axis < labels.length; axis++) {
      int classes = labels[axis].length;
      weights[axis] = new int[classes];
      lightest[axis] = new int[(classes + STRIDE - 1) / STRIDE];
      known[axis] = new IdentityHashMap<>();
      int weight = 0;
      for (int c = 0; c < classes; c++) {
        weight += steps[axis][c];
        weights[axis][c] = weight;
        int stride = c / STRIDE;
        if (c % STRIDE == 0 || weight < weights[axis][lightest[axis][stride]]) {
          lightest[axis][stride] = c;
        }
      }
    }
  }

  /** A point of the box. */
  int[] corner(Box box) {
    int[] point = new int[labels.length];
    for (int axis = 0; axis < point.length; axis++) {
      IntSet side = box.side(axis);
      Integer label = known[axis].get(side);
      if (label == null) {
        label = lightest(axis, side);
        if (side.max() - side.min() > WIDE && known[axis].size() < MOST_KNOWN) {
          known[axis].put(side, label);
        }
      }
      point[axis] = label;
    }
    return point;
  }

  /** A label of the side in the class with the lowest count. */
  int lightest(int axis, IntSet side) {
    int best = -1;
    int bestLabel = side.min();
    int[] weight = weights[axis];
    for (int i = 0; i < side.intervals(); i++) {
      int from = classOf(axis, side.first(i));
      int to = classOf(axis, side.last(i));
      int c = from;
      while (c <= to) {
        boolean whole = c % STRIDE == 0 && c + STRIDE - 1 <= to;
        int candidate = whole ? lightest[axis][c / STRIDE] : c;
        if (best < 0 || weight[candidate] < weight[best]) {
          best = candidate;
          bestLabel = Math.max(side.first(i), labels[axis][candidate]);
        }
        c += whole ? STRIDE : 1;
      }
    }
    return bestLabel;
  }

  private int classOf(int axis, int label) {
    int at = Arrays.binarySearch(labels[axis], label);
    return at >= 0 ? at : -at - 2;
  }
}
