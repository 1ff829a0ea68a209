package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.Standing;
import dev.ironsieve.core.analysis.Questions.Obstacle;
import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.space.Box;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * Shadowed and redundant (above): whether anything still gets to a rule, by a witness that is found
 * cheaply for most, else by an exact search; and if nothing does, which rules take it.
 */
final class Covering {
  private final Questions questions;
  private final Order order;

  Covering(Questions questions) {
    this.questions = questions;
    this.order = questions.order;
  }

  Standing of(int slot, Corners corners) {
    if (!questions.enabled(slot)) {
      return new Standing.PassedOver();
    }
    List<Box> target = order.region(slot);
    if (target.isEmpty()) {
      return new Standing.Empty();
    }
    Optional<int[]> quick = questions.guess(target, corners, slot, questions.before(slot));
    if (quick.isPresent()) {
      return new Standing.Decides(quick.get());
    }
    int whole = holdsAll(slot, target);
    if (whole != Order.NONE) {
      return coveredBy(slot, whole, corners);
    }
    Budget budget = new Budget(questions.steps);
    return switch (questions.coveredBefore(slot, target, budget)) {
      case Outcome.Uncovered uncovered -> new Standing.Decides(uncovered.point());
      case Outcome.Exhausted exhausted -> new Standing.Undecided("whether anything gets to it");
      case Outcome.Covered covered -> {
        Blame.Verdict blame =
            Blame.of(
                target,
                point -> questions.holdingBefore(slot, point),
                order::region,
                covered.rules(),
                budget);
        yield blame == null
            ? new Standing.Undecided("which rules together take all of it")
            : covered(slot, corners, blame);
      }
    };
  }

  /** The first earlier rule that holds all of the target by itself, or {@link Order#NONE}. */
  private int holdsAll(int slot, List<Box> target) {
    int[] point = target.getFirst().lowest(); // which it has to hold
    int other = order.first(point);
    while (other != Order.NONE && order.position(other) < order.position(slot)) {
      if (holdsEachBox(order.region(other), target)) {
        return other;
      }
      other = order.firstFrom(order.position(other) + 1, point);
    }
    return Order.NONE;
  }

  /** A single rule that holds all is a smallest cover, whatever else there is. */
  private Standing coveredBy(int slot, int other, Corners corners) {
    BitSet only = new BitSet();
    only.set(other);
    return covered(slot, corners, new Blame.Verdict(only, true));
  }

  private static boolean holdsEachBox(List<Box> outer, List<Box> inner) {
    for (Box box : inner) {
      boolean held = false;
      for (Box candidate : outer) {
        held |= candidate.containsAll(box);
      }
      if (!held) {
        return false;
      }
    }
    return true;
  }

  /** Whether the rules that cover it all say the same as it would. */
  private Standing covered(int slot, Corners corners, Blame.Verdict blame) {
    List<Box> target = order.region(slot);
    Optional<int[]> quick =
        questions.guess(
            target,
            corners,
            slot,
            point -> otherwise(slot, order.first(point)) ? Obstacle.NOTHING : Obstacle.HOPELESS);
    if (quick.isPresent()) {
      return shadowed(blame, quick.get());
    }
    Budget budget = new Budget(questions.steps);
    // Nothing of the target gets past the last of the rules that cover it.
    int end = blame.rules().stream().map(order::position).max().orElseThrow() + 1;
    int[] others = order.meeting(target, 0, end, other -> otherwise(slot, other));
    for (int other : blamedFirst(others, blame.rules())) {
      List<Box> shared = Box.shared(target, order.region(other));
      switch (questions.coveredBefore(other, shared, budget)) {
        case Outcome.Uncovered uncovered -> {
          return shadowed(blame, uncovered.point());
        }
        case Outcome.Exhausted exhausted -> {
          return new Standing.Undecided("whether the rules above all say the same");
        }
        case Outcome.Covered covered -> {}
      }
    }
    int[] point = target.getFirst().lowest();
    return new Standing.Covered(false, blame.rules(), blame.smallest(), point, order.first(point));
  }

  private Standing shadowed(Blame.Verdict blame, int[] point) {
    return new Standing.Covered(true, blame.rules(), blame.smallest(), point, order.first(point));
  }

  private boolean otherwise(int slot, int other) {
    return questions.verdict(other) != questions.verdict(slot);
  }

  /** So that the witness is, where there is one, a rule's that is blamed anyway. */
  private static List<Integer> blamedFirst(int[] meeting, BitSet blamed) {
    return Arrays.stream(meeting)
        .boxed()
        .sorted(Comparator.comparing(rule -> !blamed.get(rule)))
        .toList();
  }
}
