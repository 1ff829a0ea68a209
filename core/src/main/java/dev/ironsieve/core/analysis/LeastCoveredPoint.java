package dev.ironsieve.core.analysis;

import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.parallel.Tasks;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * The corner of a box where the fewest rules meet: on each axis the class that the fewest boxes
 * hold. A guess for where a rule still decides something, right for most rules. Counted once; after
 * edits the counts are old, and the guess a little worse.
 */
final class LeastCoveredPoint implements CoverSearch.Picker {
  /**
   * Of so many classes, of so many such strides and so on, the one with the lowest count is kept.
   */
  private static final int STRIDE = 16;

  private static final int BITS = Integer.numberOfTrailingZeros(STRIDE);

  private final Axis[] axes;

  /**
   * The counts on one axis.
   *
   * @param codes lowest code of each class, when counted
   * @param weights how many boxes hold the class, but for those that hold all classes
   * @param lightest by level and stride, the class of it with the lowest weight, behind that weight
   *     << 32; on the first level a stride is of classes, on the next of strides
   * @param ofAll the same for all classes
   * @param room codes of each class, if each has as many; else 0
   */
  private record Axis(int[] codes, int[] weights, long[][] lightest, long ofAll, int room) {
    static Axis of(int[] codes, int[] steps) {
      int[] weights = new int[codes.length];
      int weight = 0;
      for (int c = 0; c < codes.length; c++) {
        weight += steps[c];
        weights[c] = weight;
      }
      long ofAll = lightest(weights, 0, weights.length);
      return new Axis(codes, weights, lightest(weights), ofAll, room(codes));
    }

    private static long[][] lightest(int[] weights) {
      List<long[]> levels = new ArrayList<>();
      for (int count = weights.length / STRIDE; count > 0; count /= STRIDE) {
        long[] below = levels.isEmpty() ? null : levels.getLast();
        long[] level = new long[count]; // whole strides only
        for (int stride = 0; stride < count; stride++) {
          int from = stride * STRIDE;
          level[stride] =
              below == null
                  ? lightest(weights, from, from + STRIDE)
                  : Arrays.stream(below, from, from + STRIDE).min().getAsLong();
        }
        levels.add(level);
      }
      return levels.toArray(long[][]::new);
    }

    /** Of some classes, the last not included, the first with the lowest weight. */
    private static long lightest(int[] weights, int from, int to) {
      long best = Long.MAX_VALUE;
      for (int c = from; c < to; c++) {
        best = Math.min(best, (long) weights[c] << Integer.SIZE | c);
      }
      return best;
    }

    private static int room(int[] codes) {
      int room = codes.length > 1 ? codes[1] : 0;
      for (int c = 0; c < codes.length; c++) {
        if (codes[c] != c * room) {
          return 0;
        }
      }
      return room;
    }

    /** The class that holds a code; O(1) where each has as many codes, else O(log classes). */
    int classOf(int code) {
      if (room > 0) {
        return Math.min(codes.length - 1, code / room);
      }
      int at = Arrays.binarySearch(codes, code);
      return at >= 0 ? at : -at - 2;
    }

    /** Of some classes, both included, the first with the lowest weight, behind that weight. */
    long lightest(int from, int to) {
      if (from == 0 && to == codes.length - 1) {
        return ofAll;
      }
      long best = Long.MAX_VALUE;
      int c = from;
      while (c <= to) {
        // The longest stride that begins here and does not go too far.
        int level = Math.min(Integer.numberOfTrailingZeros(c) / BITS, lightest.length);
        while (level > 0 && c + (1 << level * BITS) - 1 > to) {
          level--;
        }
        long own =
            level == 0
                ? (long) weights[c] << Integer.SIZE | c
                : lightest[level - 1][c >> level * BITS];
        best = Math.min(best, own);
        c += 1 << level * BITS;
      }
      return best;
    }
  }

  /** Counts, for several places in the order, the boxes of the rules before each place. */
  static LeastCoveredPoint[] upTo(RuleIndex index, int places) {
    Axis[][] counted = new Axis[index.space().axes()][];
    Tasks.each(counted.length, axis -> counted[axis] = upTo(index, places, axis));
    LeastCoveredPoint[] out = new LeastCoveredPoint[places];
    for (int place = 0; place < places; place++) {
      Axis[] axes = new Axis[counted.length];
      for (int axis = 0; axis < axes.length; axis++) {
        axes[axis] = counted[axis][place];
      }
      out[place] = new LeastCoveredPoint(axes);
    }
    return out;
  }

  private static Axis[] upTo(RuleIndex index, int places, int axis) {
    Space space = index.space();
    int[] codes = new int[space.classes(axis)];
    for (int rank = 0; rank < codes.length; rank++) {
      codes[rank] = space.code(axis, rank);
    }
    int[] steps = new int[codes.length + 1]; // by how much the weight rises
    Axis[] out = new Axis[places];
    int position = 0;
    for (int place = 0; place < places; place++) {
      int end = (int) ((long) index.size() * (place + 1) / places);
      for (; position < end; position++) {
        int handle = index.handleAt(position);
        if (index.rule(handle).isInForce()) {
          for (Box box : index.region(handle)) {
            count(space, axis, box.side(axis), steps);
          }
        }
      }
      out[place] = Axis.of(codes, steps);
    }
    return out;
  }

  private static void count(Space space, int axis, IntSet side, int[] steps) {
    if (side == space.all(axis)) {
      return; // the same for every class
    }
    for (int i = 0; i < side.intervals(); i++) {
      steps[space.rank(axis, side.first(i))]++;
      steps[space.rank(axis, side.last(i) + 1)]--;
    }
  }

  private LeastCoveredPoint(Axis[] axes) {
    this.axes = axes;
  }

  /**
   * The same counts, and counted anew on some axes.
   *
   * @param index the same rules, or nearly, with other codes on these axes only
   */
  LeastCoveredPoint with(RuleIndex index, int[] others) {
    Axis[] mixed = axes.clone();
    Tasks.each(others.length, i -> mixed[others[i]] = upTo(index, 1, others[i])[0]);
    return new LeastCoveredPoint(mixed);
  }

  /** A point of the box. */
  int[] corner(Box box) {
    int[] point = new int[axes.length];
    for (int axis = 0; axis < point.length; axis++) {
      point[axis] = lightest(axis, box.side(axis));
    }
    return point;
  }

  @Override
  public List<int[]> of(Box open) {
    return List.of(corner(open));
  }

  /** A code of the side in the class with the lowest count. */
  int lightest(int number, IntSet side) {
    Axis axis = axes[number];
    long best = Long.MAX_VALUE;
    int low = side.min(); // of the interval that has the best class
    for (int i = 0; i < side.intervals(); i++) {
      int from = axis.classOf(side.first(i));
      int to = axis.classOf(side.last(i));
      long own = axis.lightest(from, to);
      if (own < best) {
        best = own;
        low = side.first(i);
      }
    }
    return Math.max(low, axis.codes[(int) best]);
  }
}
