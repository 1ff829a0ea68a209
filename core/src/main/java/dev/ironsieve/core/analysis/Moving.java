package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Questions.Obstacle;
import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Slots: which rules another cannot pass. Without the rule, each of its connections is decided by
 * some other rule or the closing rule; it takes the connection exactly if it stands above that. So
 * a verdict changes exactly when it passes a rule with another verdict that would decide one of its
 * connections.
 */
final class Moving {
  private final Questions questions;
  private final Order order;
  private final Corners corners;

  Moving(Questions questions, Corners corners) {
    this.questions = questions;
    this.order = questions.order;
    this.corners = corners;
  }

  Slots of(int slot) {
    List<Slots.Hurdle> hurdles = new ArrayList<>();
    boolean complete = true;
    int own = order.position(slot);
    if (questions.enabled(slot)) {
      int[] others =
          order.meeting(
              order.region(slot),
              0,
              order.size(),
              other -> questions.verdict(other) != questions.verdict(slot));
      for (int other : others) {
        List<Box> shared = Box.shared(order.region(slot), order.region(other));
        Optional<int[]> quick =
            questions.guess(
                shared,
                corners,
                slot,
                point -> {
                  int decides = order.firstWithout(slot, point);
                  return decides == other ? Obstacle.NOTHING : decides;
                });
        Outcome outcome =
            quick.isPresent()
                ? new Outcome.Uncovered(quick.get())
                : CoverSearch.search(
                    shared,
                    point -> {
                      int decides = order.firstWithout(slot, point);
                      return decides == other ? CoverSearch.Holder.NOBODY : decides;
                    },
                    order::region,
                    new Budget(questions.steps));
        switch (outcome) {
          case Outcome.Uncovered found -> hurdles.add(hurdle(slot, other, own, found.point()));
          case Outcome.Exhausted exhausted -> complete = false;
          case Outcome.Covered covered -> {}
        }
      }
    }
    return new Slots(order.rule(slot).id(), own, order.size(), hurdles, complete);
  }

  private Slots.Hurdle hurdle(int slot, int other, int own, int[] point) {
    int position = order.position(other);
    int[] familiar =
        questions.familiar(
            point, p -> order.holds(slot, p) && order.firstWithout(slot, p) == other);
    return new Slots.Hurdle(
        position < own ? position : position - 1,
        order.rule(other).id(),
        questions.verdict(other),
        order.space().connection(familiar));
  }
}
