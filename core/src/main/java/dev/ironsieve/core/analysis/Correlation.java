package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.PairProof;
import dev.ironsieve.core.analysis.Certificate.StandingProof;
import dev.ironsieve.core.analysis.Questions.Obstacle;
import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.ruleindex.OverlapQuery;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Box;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntPredicate;

/**
 * Correlated: a rule and an earlier rule with another verdict each match something that the other
 * does not, and the earlier rule decides some connection that both match. The first such rule is
 * enough for the finding.
 */
final class Correlation {
  private final EarlierRules earlier;
  private final Questions questions;
  private final RuleIndex index;

  Correlation(EarlierRules earlier) {
    this.earlier = earlier;
    this.questions = earlier.questions;
    this.index = earlier.index;
  }

  /**
   * The first earlier rule that correlates with this: the same one whatever was edited before, as
   * long as the budget suffices.
   */
  PairProof correlated(int handle, OverlapQuery overlaps, LeastCoveredPoint leastCovered) {
    if (earlier.isRedundantAbove(handle)) {
      return Certificate.NONE;
    }
    Budget budget = new Budget(questions.steps);
    Correlating will = new Correlating(handle, budget);
    int first = earlier.firstInside(handle, overlaps, will);
    int end =
        first == RuleIndex.NONE
            ? endOfDeciding(handle)
            : Math.min(endOfDeciding(handle), index.position(first));
    int[] above = overlaps.all(0, end, other -> earlier.contradicts(handle, other));
    PairProof higher = correlated(handle, above, will, leastCovered, budget);
    return first == RuleIndex.NONE || higher instanceof PairProof.Found
        ? higher
        : new PairProof.Found(first, earlier.point(first));
  }

  /** No rule at this position or below, but above {@code handle}, decides anything of its match. */
  private int endOfDeciding(int handle) {
    return earlier.standing(handle) instanceof StandingProof.Covered covered
        ? Arrays.stream(covered.causes()).map(index::position).max().orElseThrow() + 1
        : index.position(handle);
  }

  /**
   * The first of some earlier rules that decides something of the match.
   *
   * @param others some earlier rules, by position
   * @param will which of them are looked for
   */
  private PairProof correlated(
      int handle, int[] others, Correlating will, LeastCoveredPoint leastCovered, Budget budget) {
    boolean settled = true;
    for (int other : others) {
      if (will.test(other)) {
        PairProof found = decidesSomething(handle, other, will, leastCovered, budget);
        if (found instanceof PairProof.Found) {
          return found;
        }
        settled &= found instanceof PairProof.None;
      }
    }
    return settled && will.settled ? Certificate.NONE : new PairProof.Undecided();
  }

  /** Where a rule that is looked for, this or one above it, decides something that both match. */
  private PairProof decidesSomething(
      int handle, int other, Correlating will, LeastCoveredPoint leastCovered, Budget budget) {
    PairProof.Found quick = quick(handle, other, will, leastCovered);
    if (quick != null) {
      return quick;
    }
    List<Box> shared = Box.shared(index.region(handle), index.region(other));
    // Whichever of those that are looked for decides there, so only the rest keeps this one off.
    CoverSearch.Holder notLookedFor =
        point -> {
          int first = index.first(point);
          return will.test(first) ? CoverSearch.Holder.NOBODY : first;
        };
    return switch (CoverSearch.search(shared, notLookedFor, leastCovered, index::region, budget)) {
      case Outcome.Uncovered uncovered ->
          new PairProof.Found(index.first(uncovered.point()), uncovered.point());
      case Outcome.Covered covered -> Certificate.NONE;
      case Outcome.Exhausted exhausted -> new PairProof.Undecided();
    };
  }

  /** Whether this earlier rule, which it meets, correlates with {@code handle}. */
  PairProof correlates(int handle, int other, LeastCoveredPoint leastCovered) {
    return correlates(handle, other, leastCovered, new Budget(questions.steps));
  }

  private PairProof correlates(
      int handle, int other, LeastCoveredPoint leastCovered, Budget budget) {
    Correlating will = new Correlating(handle, budget).only(other);
    return will.test(other)
        ? correlated(handle, new int[] {other}, will, leastCovered, budget)
        : will.settled ? Certificate.NONE : new PairProof.Undecided();
  }

  /**
   * Whether a rule that meets {@code handle} where something was taken away correlates with it.
   *
   * @param gone what was taken away
   * @param from no rule above this position was concerned
   * @param to only rules above this position are looked for
   */
  PairProof revealed(int handle, List<Box> gone, int from, int to, LeastCoveredPoint leastCovered) {
    if (from >= to) {
      return Certificate.NONE;
    }
    List<Box> freed = Box.shared(gone, index.region(handle));
    int[] overlapping =
        index.overlapping(freed, from, to, other -> earlier.contradicts(handle, other));
    Budget budget = new Budget(questions.steps);
    return correlated(handle, overlapping, new Correlating(handle, budget), leastCovered, budget);
  }

  /**
   * Whether rules that meet one rule may correlate with it, each asked about once; those of which
   * the budget leaves that open are not looked for. For one thread.
   */
  private final class Correlating implements IntPredicate {
    private final int handle;
    private final Budget budget;
    private final Map<Integer, Boolean> known = new HashMap<>();
    private int only = RuleIndex.NONE;

    /** False as soon as the budget left one open. */
    private boolean settled = true;

    Correlating(int handle, Budget budget) {
      this.handle = handle;
      this.budget = budget;
    }

    /** Looks for one rule only. */
    Correlating only(int other) {
      only = other;
      return this;
    }

    @Override
    public boolean test(int other) {
      return (only == RuleIndex.NONE || only == other) && known.computeIfAbsent(other, this::asked);
    }

    private boolean asked(int other) {
      if (!earlier.contradicts(handle, other)
          || earlier.standing(other) instanceof StandingProof.Covered) {
        return false;
      }
      Containment inside = earlier.contains(handle, other, budget);
      Containment outside =
          inside == Containment.INSIDE
              ? Containment.UNKNOWN
              : earlier.contains(other, handle, budget);
      settled &=
          inside == Containment.INSIDE
              || outside == Containment.INSIDE
              || inside == Containment.NOT_INSIDE && outside == Containment.NOT_INSIDE;
      return inside == Containment.NOT_INSIDE && outside == Containment.NOT_INSIDE;
    }
  }

  /** A point of both that a rule decides which is looked for, if one is found cheaply; or null. */
  private PairProof.Found quick(
      int handle, int other, Correlating will, LeastCoveredPoint leastCovered) {
    if (earlier.decidesInside(handle, other)) {
      return new PairProof.Found(other, earlier.point(other));
    }
    List<Box> shared = Box.shared(index.region(handle), index.region(other));
    return questions
        .guessFromCorners(
            shared,
            leastCovered,
            handle,
            point -> {
              int first = index.first(point);
              return will.test(first) ? Obstacle.NOTHING : first;
            })
        .map(point -> new PairProof.Found(index.first(point), point))
        .orElse(null);
  }

  /** Every earlier rule that correlates with this. */
  PartnerHandles all(int handle, LeastCoveredPoint leastCovered) {
    Budget budget = new Budget(questions.steps * PartnerHandles.QUESTIONS);
    return PartnerHandles.of(
        earlier.of(handle), other -> correlates(handle, other, leastCovered, budget));
  }
}
