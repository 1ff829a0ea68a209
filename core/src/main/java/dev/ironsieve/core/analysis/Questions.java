package dev.ironsieve.core.analysis;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.cover.CoverSearch.Picker;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;

/** Helpers that the questions about single rules share: the rules around, and points of boxes. */
final class Questions {
  /** Random points that are tried, behind the corner, before an exact search. */
  private static final int TRIES = 3;

  /** Rules in the way that are walked out of, from each of these points. */
  private static final int STEPS_OF_A_WALK = 4;

  /** Tries from a corner where nothing else is tried; more rarely find anything new. */
  private static final int STEPS_FROM_A_CORNER = 1;

  /** Rules that hold a point of which the widest is looked for. */
  private static final int MOST_COMPARED = 64;

  final RuleIndex index;
  final long steps;

  Questions(RuleIndex index, long steps) {
    this.index = index;
    this.steps = steps;
  }

  Verdict verdict(int handle) {
    return index.verdict(handle);
  }

  boolean enabled(int handle) {
    return index.rule(handle).isInForce();
  }

  /** A condition on a point. */
  interface Wanted {
    boolean holds(int[] point);
  }

  /** Something that stands in the way at a point: a rule, by its handle, or one of these. */
  interface Obstacle {
    /** The point is a solution. */
    int NOTHING = -1;

    /** Leaving one rule does not help here. */
    int HOPELESS = -2;

    int at(int[] point);
  }

  /** Whether the rules that stand before a rule hold all of the target, which it holds. */
  Outcome coveredBefore(int handle, List<Box> target, Picker picker, Budget budget) {
    return CoverSearch.search(
        target,
        point -> widestBefore(handle, boxWith(target, point), point),
        picker,
        index::region,
        budget);
  }

  /**
   * The first of the rules before a rule, as far as they hold a point of the target and are among
   * the first of those, that is known to hold all of the target; else {@link RuleIndex#NONE}.
   */
  int holderOfAllBefore(int handle, List<Box> target, int[] point, Budget budget) {
    for (int rule : index.holdingAbove(index.position(handle), point, MOST_COMPARED)) {
      if (Containment.of(target, index.region(rule), budget) == Containment.INSIDE) {
        return rule;
      }
    }
    return RuleIndex.NONE;
  }

  /**
   * Of the first rules before a rule that hold a point of a box, the one that leaves out something
   * of the box on the fewest axes: few such rules are needed to hold all of it.
   */
  private int widestBefore(int handle, Box box, int[] point) {
    int[] holding = index.holdingAbove(index.position(handle), point, MOST_COMPARED);
    int widest = CoverSearch.Holder.NOBODY;
    int fewest = Integer.MAX_VALUE;
    for (int i = 0; fewest > 0 && i < holding.length; i++) {
      int leftOut = axesLeftOut(boxWith(index.region(holding[i]), point), box);
      if (leftOut < fewest) {
        fewest = leftOut;
        widest = holding[i];
      }
    }
    return widest;
  }

  /** The box of a region that holds the point, which one does. */
  private static Box boxWith(List<Box> region, int[] point) {
    for (Box box : region) {
      if (box.contains(point)) {
        return box;
      }
    }
    throw new IllegalArgumentException("no box holds the point");
  }

  private static int axesLeftOut(Box box, Box of) {
    int count = 0;
    for (int axis = 0; axis < box.axes(); axis++) {
      IntSet side = box.side(axis);
      count += side == of.side(axis) || side.containsAll(of.side(axis)) ? 0 : 1;
    }
    return count;
  }

  /** For points that {@code handle} decides: the rule that decides in its place. */
  Obstacle before(int handle) {
    return point -> {
      int first = index.first(point);
      return first == handle ? Obstacle.NOTHING : first;
    };
  }

  /**
   * A point without an obstacle, found cheaply: from a corner, then from some points at random,
   * each time walking out of the rules that stand in the way.
   */
  Optional<int[]> guess(
      List<Box> region, LeastCoveredPoint leastCovered, long seed, Obstacle obstacle) {
    return guess(region, leastCovered, seed, obstacle, TRIES, STEPS_OF_A_WALK);
  }

  /** The same from the corners only, where more guesses would cost more than they find. */
  Optional<int[]> guessFromCorners(
      List<Box> region, LeastCoveredPoint leastCovered, long seed, Obstacle obstacle) {
    return guess(region, leastCovered, seed, obstacle, 0, STEPS_FROM_A_CORNER);
  }

  private Optional<int[]> guess(
      List<Box> region,
      LeastCoveredPoint leastCovered,
      long seed,
      Obstacle obstacle,
      int tries,
      int steps) {
    SplittableRandom random = new SplittableRandom(seed);
    for (Box box : region) {
      for (int i = 0; i <= tries; i++) {
        int[] point = i == 0 ? leastCovered.corner(box) : index.space().pick(box, random);
        if (arrives(box, point, leastCovered, random, obstacle, steps)) {
          return Optional.of(point);
        }
      }
    }
    return Optional.empty();
  }

  /** Moves the point inside the box, to where there is no obstacle if that goes well. */
  private boolean arrives(
      Box box,
      int[] point,
      LeastCoveredPoint leastCovered,
      SplittableRandom random,
      Obstacle obstacle,
      int steps) {
    int at = obstacle.at(point);
    for (int step = 0; step < steps && at >= 0; step++) {
      if (!leave(box, point, at, leastCovered, random)) {
        return false;
      }
      at = obstacle.at(point);
    }
    return at == Obstacle.NOTHING;
  }

  /**
   * Moves the point, inside the box, on one axis to where the rule does not hold it; false if the
   * rule's box that holds the point holds all of the box.
   */
  private boolean leave(
      Box box, int[] point, int handle, LeastCoveredPoint leastCovered, SplittableRandom random) {
    Box held = boxWith(index.region(handle), point);
    int first = random.nextInt(point.length);
    for (int i = 0; i < point.length; i++) {
      int axis = (first + i) % point.length;
      IntSet side = box.side(axis);
      if (side != held.side(axis) && !held.side(axis).containsAll(side)) {
        point[axis] = leastCovered.lightest(axis, side.minus(held.side(axis)));
        return true;
      }
    }
    return false;
  }

  /**
   * The point, moved to classes that a reader knows: on all axes at once if that proves the same,
   * else axis by axis as far as it does.
   *
   * @param proves asked of points that the rules hold
   * @param handles rules that hold the point and shall hold it still; {@link RuleIndex#NONE} does
   *     not count
   */
  int[] familiar(int[] point, Wanted proves, int... handles) {
    int[][] known = familiarOf(point, handles);
    int[] all = point.clone();
    for (int axis = 0; axis < all.length; axis++) {
      all[axis] = known[axis].length == 0 ? point[axis] : known[axis][0];
    }
    if (Arrays.equals(all, point) || proves.holds(all)) {
      return all;
    }
    int[] best = point;
    for (int axis = 0; axis < best.length; axis++) {
      for (int code : known[axis]) {
        if (code == best[axis]) {
          break;
        }
        int[] moved = best.clone();
        moved[axis] = code;
        if (proves.holds(moved)) {
          best = moved;
          break;
        }
      }
    }
    return best;
  }

  /** By axis, the codes that a reader knows to which a point may be moved. */
  private int[][] familiarOf(int[] point, int[] handles) {
    Box[] boxes = new Box[handles.length];
    int count = 0;
    for (int handle : handles) {
      if (handle != RuleIndex.NONE) {
        boxes[count++] = boxWith(index.region(handle), point);
      }
    }
    int[][] out = new int[point.length][];
    for (int axis = 0; axis < out.length; axis++) {
      int[] known = index.space().familiar(axis, point[axis]);
      int kept = 0;
      for (int code : known) {
        if (isInAll(boxes, count, axis, code)) {
          known[kept++] = code;
        }
      }
      out[axis] = Arrays.copyOf(known, kept);
    }
    return out;
  }

  private static boolean isInAll(Box[] boxes, int count, int axis, int code) {
    for (int i = 0; i < count; i++) {
      if (!boxes[i].side(axis).contains(code)) {
        return false;
      }
    }
    return true;
  }
}
