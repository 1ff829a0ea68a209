package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Questions.Obstacle;
import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * Handles: which rules another cannot pass. Without the rule, each of its connections is decided by
 * some other rule or the default rule; it takes the connection exactly if it stands above that. So
 * a verdict changes exactly when it passes a rule with another verdict that would decide one of its
 * connections.
 */
final class PlacementSearch {
  /** Rules that are passed are asked about in so many portions, by several threads. */
  private static final int CHUNKS = 8;

  /** Budgets of one question about a rule that asking about all places may take. */
  private static final int QUESTIONS = 40;

  private final Questions questions;
  private final RuleIndex index;
  private final LeastCoveredPoint leastCovered;

  PlacementSearch(Questions questions, LeastCoveredPoint leastCovered) {
    this.questions = questions;
    this.index = questions.index;
    this.leastCovered = leastCovered;
  }

  Placement of(int handle) {
    int[] others =
        questions.enabled(handle)
            ? index.overlapping(
                index.region(handle),
                0,
                index.size(),
                other -> questions.verdict(other) != questions.verdict(handle))
            : new int[0];
    List<Answer> answers =
        IntStream.range(0, CHUNKS)
            .parallel()
            .mapToObj(chunk -> passing(handle, others, chunk))
            .flatMap(List::stream)
            .toList();
    return new Placement(
        index.rule(handle).id(),
        index.position(handle),
        index.size(),
        answers.stream().map(Answer::blocking).filter(Objects::nonNull).toList(),
        answers.stream().allMatch(Answer::known));
  }

  /**
   * The effect of moving a rule past another.
   *
   * @param blocking rule null if no verdict changes, or it is not known
   */
  private record Answer(Placement.BlockingRule blocking, boolean known) {}

  private List<Answer> passing(int handle, int[] others, int chunk) {
    List<Answer> out = new ArrayList<>();
    Budget budget = new Budget(questions.steps * QUESTIONS / CHUNKS);
    int end = (int) ((long) others.length * (chunk + 1) / CHUNKS);
    for (int i = (int) ((long) others.length * chunk / CHUNKS); i < end; i++) {
      out.add(passing(handle, others[i], budget));
    }
    return out;
  }

  private Answer passing(int handle, int other, Budget budget) {
    List<Box> shared = Box.shared(index.region(handle), index.region(other));
    Optional<int[]> quick =
        questions.guess(
            shared,
            leastCovered,
            handle,
            point -> {
              int decides = index.firstWithout(handle, point);
              return decides == other ? Obstacle.NOTHING : decides;
            });
    Outcome outcome =
        quick.isPresent()
            ? new Outcome.Uncovered(quick.get())
            : CoverSearch.search(
                shared,
                point -> {
                  int decides = index.firstWithout(handle, point);
                  return decides == other ? CoverSearch.Holder.NOBODY : decides;
                },
                leastCovered,
                index::region,
                budget);
    return switch (outcome) {
      case Outcome.Uncovered found -> new Answer(blocking(handle, other, found.point()), true);
      case Outcome.Exhausted exhausted -> new Answer(null, false);
      case Outcome.Covered covered -> new Answer(null, true);
    };
  }

  private Placement.BlockingRule blocking(int handle, int other, int[] point) {
    int own = index.position(handle);
    int position = index.position(other);
    int[] familiar =
        questions.familiar(point, p -> index.firstWithout(handle, p) == other, handle, other);
    return new Placement.BlockingRule(
        position < own ? position : position - 1,
        index.rule(other).id(),
        questions.verdict(other),
        index.space().connection(familiar));
  }
}
