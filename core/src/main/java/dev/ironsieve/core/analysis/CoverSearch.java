package dev.ironsieve.core.analysis;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Deque;
import java.util.List;

/**
 * Whether boxes together hold all of another box. Unit subtraction (a box that sticks out of the
 * target's sides in one axis only is cut away without branching) and branching on the box that
 * sticks out in the fewest axes; pieces that are still open wait on a stack. The worst case is
 * exponential in the number of axes, hence the budget.
 */
final class CoverSearch {
  /** One box of an earlier rule. */
  record Candidate(int rule, Box box) {}

  /** What a search found out. */
  sealed interface Outcome {
    /** This point of the target is in no candidate. */
    record Uncovered(int[] point) implements Outcome {}

    /** The candidates of these rules together hold all of the target. */
    record Covered(BitSet rules) implements Outcome {}

    /** The budget ran out. */
    record Exhausted() implements Outcome {}
  }

  private record Open(IntSet[] sides, List<Candidate> candidates) {}

  private final Budget budget;
  private final BitSet used = new BitSet();
  private final Deque<Open> open = new ArrayDeque<>();

  private CoverSearch(Budget budget) {
    this.budget = budget;
  }

  /** Whether {@code candidates} together hold every box of {@code target}. */
  static Outcome search(List<Box> target, List<Candidate> candidates, Budget budget) {
    CoverSearch search = new CoverSearch(budget);
    for (Box box : target) {
      search.open.push(new Open(box.sides(), candidates));
    }
    return search.run();
  }

  private Outcome run() {
    while (!open.isEmpty()) {
      Open next = open.pop();
      if (!budget.take(next.candidates.size() + 1L)) {
        return new Outcome.Exhausted();
      }
      int[] point = shrink(next.sides, next.candidates);
      if (point != null) {
        return new Outcome.Uncovered(point);
      }
    }
    return new Outcome.Covered(used);
  }

  /** Settles one open piece or splits it; a point if one is found that nothing holds. */
  private int[] shrink(IntSet[] sides, List<Candidate> candidates) {
    List<Candidate> live = candidates;
    while (true) {
      List<Candidate> touching = new ArrayList<>(live.size());
      Candidate best = null;
      int fewest = Integer.MAX_VALUE;
      boolean cut = false;
      for (Candidate candidate : live) {
        int out = sticksOut(sides, candidate.box);
        if (out < 0) {
          continue;
        }
        if (out == 0) {
          used.set(candidate.rule);
          return null;
        }
        if (out == 1) {
          used.set(candidate.rule);
          subtract(sides, candidate.box);
          cut = true;
          continue;
        }
        touching.add(candidate);
        if (out < fewest) {
          best = candidate;
          fewest = out;
        }
      }
      live = touching;
      if (live.isEmpty()) {
        return lowest(sides);
      }
      if (!cut) {
        branch(sides, best, live);
        return null;
      }
      if (!budget.take(live.size())) {
        // The stack keeps this piece, so that the caller sees the exhaustion, not a cover.
        open.push(new Open(sides, live));
        return null;
      }
    }
  }

  /** In how many axes {@code sides} is not inside the box; -1 if they are disjoint. */
  private static int sticksOut(IntSet[] sides, Box box) {
    int out = 0;
    for (int axis = 0; axis < sides.length; axis++) {
      IntSet side = box.side(axis);
      if (side == sides[axis] || side.containsAll(sides[axis])) {
        continue;
      }
      if (!side.intersects(sides[axis])) {
        return -1;
      }
      out++;
    }
    return out;
  }

  private static void subtract(IntSet[] sides, Box box) {
    for (int axis = 0; axis < sides.length; axis++) {
      if (!box.side(axis).containsAll(sides[axis])) {
        sides[axis] = sides[axis].minus(box.side(axis));
        return;
      }
    }
  }

  /** What is left of {@code sides} without the box, as disjoint pieces, an axis at a time. */
  private void branch(IntSet[] sides, Candidate by, List<Candidate> live) {
    used.set(by.rule);
    List<Candidate> others = new ArrayList<>(live);
    others.remove(by);
    IntSet[] rest = sides;
    for (int axis = 0; axis < sides.length; axis++) {
      IntSet outside = rest[axis].minus(by.box.side(axis));
      if (!outside.isEmpty()) {
        IntSet[] piece = rest.clone();
        piece[axis] = outside;
        open.push(new Open(piece, others));
        rest = rest.clone();
        rest[axis] = rest[axis].intersect(by.box.side(axis));
      }
    }
  }

  private static int[] lowest(IntSet[] sides) {
    int[] point = new int[sides.length];
    for (int axis = 0; axis < sides.length; axis++) {
      point[axis] = sides[axis].min();
    }
    return point;
  }
}
