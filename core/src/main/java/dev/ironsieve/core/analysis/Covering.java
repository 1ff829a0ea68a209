package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.Standing;
import dev.ironsieve.core.analysis.Questions.Obstacle;
import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.List;
import java.util.Optional;
import java.util.function.IntPredicate;

/**
 * Shadowed and redundant (above): whether anything still gets to a rule, by a witness that is found
 * cheaply for most; whether one rule before it holds all of it; else by an exact search. And if
 * nothing gets there, which rules take it.
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
    int[] corner = corners.corner(target.getFirst());
    if (order.first(corner) == slot) {
      return new Standing.Decides(corner);
    }
    Budget budget = new Budget(questions.steps);
    int whole = questions.holderOfAllBefore(slot, target, corner, budget);
    if (whole != Order.NONE) {
      return covered(slot, corners, new Blame.Verdict(IntSet.of(whole), Minimality.SMALLEST));
    }
    Optional<int[]> quick =
        questions.guessFromCorners(target, corners, slot, questions.before(slot));
    if (quick.isPresent()) {
      return new Standing.Decides(quick.get());
    }
    return switch (questions.coveredBefore(slot, target, corners, budget)) {
      case Outcome.Uncovered uncovered -> new Standing.Decides(uncovered.point());
      case Outcome.Exhausted exhausted -> new Standing.Undecided("whether anything gets to it");
      case Outcome.Covered covered -> {
        Blame.Verdict blame =
            Blame.of(
                target,
                point -> order.holdingAbove(order.position(slot), point, order.size()),
                order::region,
                corners,
                covered.rules(),
                budget);
        yield covered(slot, corners, blame);
      }
    };
  }

  /** Whether the rules that cover it all say the same as it would. */
  private Standing covered(int slot, Corners corners, Blame.Verdict blame) {
    List<Box> target = order.region(slot);
    Optional<int[]> quick =
        questions.guess(
            target,
            corners,
            slot,
            point -> {
              int first = order.first(point);
              return otherwise(slot, first) ? Obstacle.NOTHING : first;
            });
    if (quick.isPresent()) {
      return covered(true, blame, quick.get());
    }
    Decided decided = new Decided(slot, corners, new Budget(questions.steps));
    int end = 0; // nothing of the target gets past the last of the rules that cover it
    for (int rule : blame.rules().toArray()) {
      end = Math.max(end, order.position(rule) + 1);
      if (decided.isOtherwiseWhere(rule)) {
        return decided.standing(blame);
      }
    }
    IntPredicate worthAsking = other -> otherwise(slot, other) && !blame.rules().contains(other);
    order.around(target).some(0, end, worthAsking, decided::isOtherwiseWhere);
    return decided.standing(blame);
  }

  /** Whether a rule that says otherwise decides anything of what is covered. */
  private final class Decided {
    private final int slot;
    private final List<Box> target;
    private final Corners corners;
    private final Budget budget;
    private int[] otherwise; // such a point
    private boolean open; // whether the budget ran out

    Decided(int slot, Corners corners, Budget budget) {
      this.slot = slot;
      this.corners = corners;
      this.target = order.region(slot);
      this.budget = budget;
    }

    /** Whether there is nothing more to ask, seen from where another rule holds. */
    boolean isOtherwiseWhere(int other) {
      if (!otherwise(slot, other)) {
        return false;
      }
      List<Box> shared = Box.shared(target, order.region(other));
      // Any rule that says otherwise will do, so only those that say the same keep this one off.
      CoverSearch.Holder sayingTheSame =
          point -> {
            int first = order.first(point);
            return otherwise(slot, first) ? CoverSearch.Holder.NOBODY : first;
          };
      switch (CoverSearch.search(shared, sayingTheSame, corners, order::region, budget)) {
        case Outcome.Uncovered uncovered -> otherwise = uncovered.point();
        case Outcome.Exhausted exhausted -> open = true;
        case Outcome.Covered covered -> {}
      }
      return open || otherwise != null;
    }

    Standing standing(Blame.Verdict blame) {
      if (open) {
        return new Standing.Undecided("whether the rules above all say the same");
      }
      if (otherwise != null) {
        return covered(true, blame, otherwise);
      }
      int[] point = target.getFirst().lowest();
      return covered(false, blame, point);
    }
  }

  private Standing covered(boolean shadowed, Blame.Verdict blame, int[] point) {
    int[] causes = blame.rules().toArray();
    return new Standing.Covered(shadowed, causes, blame.minimality(), point, order.first(point));
  }

  private boolean otherwise(int slot, int other) {
    return questions.verdict(other) != questions.verdict(slot);
  }
}
