package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Questions.Obstacle;
import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * Slots: which rules another cannot pass. Without the rule, each of its connections is decided by
 * some other rule or the default rule; it takes the connection exactly if it stands above that. So
 * a verdict changes exactly when it passes a rule with another verdict that would decide one of its
 * connections.
 */
final class Moving {
  /** Rules that are passed are asked about in so many portions, by several threads. */
  private static final int CHUNKS = 8;

  /** Budgets of one question about a rule that asking about all places may take. */
  private static final int QUESTIONS = 40;

  private final Questions questions;
  private final Order order;
  private final Corners corners;

  Moving(Questions questions, Corners corners) {
    this.questions = questions;
    this.order = questions.order;
    this.corners = corners;
  }

  Slots of(int slot) {
    int[] others =
        questions.enabled(slot)
            ? order.meeting(
                order.region(slot),
                0,
                order.size(),
                other -> questions.verdict(other) != questions.verdict(slot))
            : new int[0];
    List<Answer> answers =
        IntStream.range(0, CHUNKS)
            .parallel()
            .mapToObj(chunk -> passing(slot, others, chunk))
            .flatMap(List::stream)
            .toList();
    return new Slots(
        order.rule(slot).id(),
        order.position(slot),
        order.size(),
        answers.stream().map(Answer::hurdle).filter(Objects::nonNull).toList(),
        answers.stream().allMatch(Answer::known));
  }

  /**
   * What becomes of a rule on the other side of another.
   *
   * @param hurdle null if no verdict changes, or it is not known
   */
  private record Answer(Slots.Hurdle hurdle, boolean known) {}

  private List<Answer> passing(int slot, int[] others, int chunk) {
    List<Answer> out = new ArrayList<>();
    Budget budget = new Budget(questions.steps * QUESTIONS / CHUNKS);
    int end = (int) ((long) others.length * (chunk + 1) / CHUNKS);
    for (int i = (int) ((long) others.length * chunk / CHUNKS); i < end; i++) {
      out.add(passing(slot, others[i], budget));
    }
    return out;
  }

  private Answer passing(int slot, int other, Budget budget) {
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
                corners,
                order::region,
                budget);
    return switch (outcome) {
      case Outcome.Uncovered found -> new Answer(hurdle(slot, other, found.point()), true);
      case Outcome.Exhausted exhausted -> new Answer(null, false);
      case Outcome.Covered covered -> new Answer(null, true);
    };
  }

  private Slots.Hurdle hurdle(int slot, int other, int[] point) {
    int own = order.position(slot);
    int position = order.position(other);
    int[] familiar =
        questions.familiar(point, p -> order.firstWithout(slot, p) == other, slot, other);
    return new Slots.Hurdle(
        position < own ? position : position - 1,
        order.rule(other).id(),
        questions.verdict(other),
        order.space().connection(familiar));
  }
}
