package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.StandingProof;
import dev.ironsieve.core.analysis.Questions.Obstacle;
import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.ruleindex.RuleIndex;
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
final class Shadowing {
  private final Questions questions;
  private final RuleIndex index;

  Shadowing(Questions questions) {
    this.questions = questions;
    this.index = questions.index;
  }

  StandingProof of(int handle, LeastCoveredPoint leastCovered) {
    if (!questions.enabled(handle)) {
      return new StandingProof.PassedOver();
    }
    List<Box> target = index.region(handle);
    if (Empty.matchesNothing(handle, index)) {
      return new StandingProof.Empty();
    }
    int[] corner = leastCovered.corner(target.getFirst());
    if (index.first(corner) == handle) {
      return new StandingProof.Decides(corner);
    }
    Budget budget = new Budget(questions.steps);
    int whole = questions.holderOfAllBefore(handle, target, corner, budget);
    if (whole != RuleIndex.NONE) {
      return covered(
          handle, leastCovered, new MinimalCause.Result(IntSet.of(whole), Minimality.SMALLEST));
    }
    Optional<int[]> quick =
        questions.guessFromCorners(target, leastCovered, handle, questions.before(handle));
    if (quick.isPresent()) {
      return new StandingProof.Decides(quick.get());
    }
    return switch (questions.coveredBefore(handle, target, leastCovered, budget)) {
      case Outcome.Uncovered uncovered -> new StandingProof.Decides(uncovered.point());
      case Outcome.Exhausted exhausted ->
          new StandingProof.Undecided("whether anything gets to it");
      case Outcome.Covered covered -> {
        MinimalCause.Result minimalCause =
            MinimalCause.of(
                target, earlierThan(handle), index::region, leastCovered, covered.rules(), budget);
        yield covered(handle, leastCovered, minimalCause);
      }
    };
  }

  private MinimalCause.Candidates earlierThan(int handle) {
    return new MinimalCause.Candidates() {
      @Override
      public int[] holding(int[] point) {
        return index.holdingAbove(index.position(handle), point, index.size());
      }

      @Override
      public int position(int rule) {
        return index.position(rule);
      }
    };
  }

  /** Whether the rules that cover it all say the same as it would. */
  private StandingProof covered(
      int handle, LeastCoveredPoint leastCovered, MinimalCause.Result minimalCause) {
    List<Box> target = index.region(handle);
    Optional<int[]> quick =
        questions.guess(
            target,
            leastCovered,
            handle,
            point -> {
              int first = index.first(point);
              return otherwise(handle, first) ? Obstacle.NOTHING : first;
            });
    if (quick.isPresent()) {
      return covered(true, minimalCause, quick.get());
    }
    Decided decided = new Decided(handle, leastCovered, new Budget(questions.steps));
    int end = 0; // nothing of the target gets past the last of the rules that cover it
    for (int rule : minimalCause.rules().toArray()) {
      end = Math.max(end, index.position(rule) + 1);
      if (decided.isOtherwiseWhere(rule)) {
        return decided.standing(minimalCause);
      }
    }
    IntPredicate worthAsking =
        other -> otherwise(handle, other) && !minimalCause.rules().contains(other);
    index.overlaps(target).some(0, end, worthAsking, decided::isOtherwiseWhere);
    return decided.standing(minimalCause);
  }

  /** Whether a rule with another verdict decides any part of the covered match. */
  private final class Decided {
    private final int handle;
    private final List<Box> target;
    private final LeastCoveredPoint leastCovered;
    private final Budget budget;
    private int[] otherwise; // such a point
    private boolean open; // whether the budget ran out

    Decided(int handle, LeastCoveredPoint leastCovered, Budget budget) {
      this.handle = handle;
      this.leastCovered = leastCovered;
      this.target = index.region(handle);
      this.budget = budget;
    }

    /** Whether there is nothing more to ask, seen from where another rule holds. */
    boolean isOtherwiseWhere(int other) {
      if (!otherwise(handle, other)) {
        return false;
      }
      List<Box> shared = Box.shared(target, index.region(other));
      // Any rule with another verdict will do, so only rules with the same verdict keep a point
      // off.
      CoverSearch.Holder sayingTheSame =
          point -> {
            int first = index.first(point);
            return otherwise(handle, first) ? CoverSearch.Holder.NOBODY : first;
          };
      switch (CoverSearch.search(shared, sayingTheSame, leastCovered, index::region, budget)) {
        case Outcome.Uncovered uncovered -> otherwise = uncovered.point();
        case Outcome.Exhausted exhausted -> open = true;
        case Outcome.Covered covered -> {}
      }
      return open || otherwise != null;
    }

    StandingProof standing(MinimalCause.Result minimalCause) {
      if (open) {
        return new StandingProof.Undecided("whether the rules above all say the same");
      }
      if (otherwise != null) {
        return covered(true, minimalCause, otherwise);
      }
      int[] point = target.getFirst().lowest();
      return covered(false, minimalCause, point);
    }
  }

  private StandingProof covered(boolean shadowed, MinimalCause.Result minimalCause, int[] point) {
    int[] causes = minimalCause.rules().toArray();
    return new StandingProof.Covered(
        shadowed, causes, minimalCause.minimality(), point, index.first(point));
  }

  private boolean otherwise(int handle, int other) {
    return questions.verdict(other) != questions.verdict(handle);
  }
}
