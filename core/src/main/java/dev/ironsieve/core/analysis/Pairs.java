package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.Pair;
import dev.ironsieve.core.analysis.Certificate.Standing;
import dev.ironsieve.core.analysis.Questions.Obstacle;
import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.ruleindex.OverlapQuery;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntFunction;
import java.util.function.IntPredicate;

/**
 * Correlated and generalised: how a rule overlaps earlier rules with another verdict that decide
 * something there. One such rule is enough for a finding; {@link #all} has every one.
 */
final class Pairs {
  /** Budgets of one question about a rule that asking for all of its partners may take. */
  private static final int QUESTIONS = 40;

  private final Questions questions;
  private final RuleIndex index;
  private final IntFunction<Standing> standings;
  private Witnesses witnesses; // while they are not outdated

  /**
   * @param standings what is known of each rule, by handle
   */
  Pairs(Questions questions, IntFunction<Standing> standings) {
    this.questions = questions;
    this.index = questions.index;
    this.standings = standings;
  }

  /**
   * @param current the points that all rules decide, until there is an edit; then null
   */
  void use(Witnesses current) {
    witnesses = current;
  }

  /**
   * The first earlier rule with another verdict whose witness lies in this rule and for which a
   * test holds, or {@link RuleIndex#NONE}.
   */
  private int firstInside(int handle, OverlapQuery overlaps, IntPredicate test) {
    if (witnesses != null) {
      return witnesses.firstInside(handle, test);
    }
    int[] first = {RuleIndex.NONE};
    overlaps.some(
        0,
        index.position(handle),
        other -> contradicts(handle, other) && decidesInside(handle, other),
        other -> {
          if (isAbove(other, first[0]) && test.test(other)) {
            first[0] = other;
          }
          return false;
        });
    return first[0];
  }

  private boolean decidesInside(int handle, int other) {
    return standings.apply(other) instanceof Standing.Decides decides
        && index.holds(handle, decides.point());
  }

  private boolean isAbove(int other, int best) {
    return best == RuleIndex.NONE || index.position(other) < index.position(best);
  }

  private int[] point(int handle) {
    return ((Standing.Decides) standings.apply(handle)).point();
  }

  /** The earlier rules with another verdict that a rule meets. */
  private int[] earlier(int handle) {
    return index.overlapping(
        index.region(handle), 0, index.position(handle), other -> contradicts(handle, other));
  }

  private boolean contradicts(int handle, int other) {
    return questions.verdict(handle) != questions.verdict(other);
  }

  /** The first earlier rule with another verdict that decides something and lies inside. */
  Pair generalised(int handle, OverlapQuery overlaps) {
    if (isRedundantAbove(handle)) {
      return Certificate.NONE;
    }
    Budget budget = new Budget(questions.steps);
    boolean[] open = new boolean[1];
    int other =
        firstInside(
            handle,
            overlaps,
            o -> {
              Containment inside = contains(handle, o, budget);
              open[0] |= inside == Containment.UNKNOWN;
              return inside == Containment.INSIDE;
            });
    if (other != RuleIndex.NONE) {
      return new Pair.Found(other, point(other));
    }
    return open[0] ? new Pair.Undecided() : Certificate.NONE;
  }

  /** Whether {@code handle} generalises this earlier rule, which it meets. */
  Pair generalises(int handle, int other) {
    return generalises(handle, other, new Budget(questions.steps));
  }

  private Pair generalises(int handle, int other, Budget budget) {
    if (!contradicts(handle, other) || !decidesInside(handle, other)) {
      return Certificate.NONE;
    }
    return switch (contains(handle, other, budget)) {
      case INSIDE -> new Pair.Found(other, point(other));
      case NOT_INSIDE -> Certificate.NONE;
      case UNKNOWN -> new Pair.Undecided();
    };
  }

  private Containment contains(int outer, int inner, Budget budget) {
    return Containment.of(index.region(inner), index.region(outer), budget);
  }

  /**
   * The first earlier rule that correlates with this: the same one whatever was edited before, as
   * long as the budget suffices.
   */
  Pair correlated(int handle, OverlapQuery overlaps, LeastCoveredPoint leastCovered) {
    if (isRedundantAbove(handle)) {
      return Certificate.NONE;
    }
    Budget budget = new Budget(questions.steps);
    Correlating will = new Correlating(handle, budget);
    int first = firstInside(handle, overlaps, will);
    int end =
        first == RuleIndex.NONE
            ? endOfDeciding(handle)
            : Math.min(endOfDeciding(handle), index.position(first));
    int[] above = overlaps.all(0, end, other -> contradicts(handle, other));
    Pair earlier = correlated(handle, above, will, leastCovered, budget);
    return first == RuleIndex.NONE || earlier instanceof Pair.Found
        ? earlier
        : new Pair.Found(first, point(first));
  }

  /** Whether it is known that nothing of the rule's match is decided otherwise. */
  private boolean isRedundantAbove(int handle) {
    return standings.apply(handle) instanceof Standing.Covered covered && !covered.shadowed();
  }

  /** No rule at this position or below, but above {@code handle}, decides anything of its match. */
  private int endOfDeciding(int handle) {
    return standings.apply(handle) instanceof Standing.Covered covered
        ? Arrays.stream(covered.causes()).map(index::position).max().orElseThrow() + 1
        : index.position(handle);
  }

  /**
   * The first of some earlier rules that decides something of the match.
   *
   * @param earlier by position
   * @param will which of them are looked for
   */
  private Pair correlated(
      int handle, int[] earlier, Correlating will, LeastCoveredPoint leastCovered, Budget budget) {
    boolean settled = true;
    for (int other : earlier) {
      if (will.test(other)) {
        Pair found = decidesSomething(handle, other, will, leastCovered, budget);
        if (found instanceof Pair.Found) {
          return found;
        }
        settled &= found instanceof Pair.None;
      }
    }
    return settled && will.settled ? Certificate.NONE : new Pair.Undecided();
  }

  /** Where a rule that is looked for, this or one above it, decides something that both match. */
  private Pair decidesSomething(
      int handle, int other, Correlating will, LeastCoveredPoint leastCovered, Budget budget) {
    Pair.Found quick = quick(handle, other, will, leastCovered);
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
          new Pair.Found(index.first(uncovered.point()), uncovered.point());
      case Outcome.Covered covered -> Certificate.NONE;
      case Outcome.Exhausted exhausted -> new Pair.Undecided();
    };
  }

  /** Whether this earlier rule, which it meets, correlates with {@code handle}. */
  Pair correlates(int handle, int other, LeastCoveredPoint leastCovered) {
    return correlates(handle, other, leastCovered, new Budget(questions.steps));
  }

  private Pair correlates(int handle, int other, LeastCoveredPoint leastCovered, Budget budget) {
    Correlating will = new Correlating(handle, budget).only(other);
    return will.test(other)
        ? correlated(handle, new int[] {other}, will, leastCovered, budget)
        : will.settled ? Certificate.NONE : new Pair.Undecided();
  }

  /**
   * Whether a rule that meets {@code handle} where something was taken away correlates with it.
   *
   * @param gone what was taken away
   * @param from no rule above this position was concerned
   * @param to only rules above this position are looked for
   */
  Pair revealed(int handle, List<Box> gone, int from, int to, LeastCoveredPoint leastCovered) {
    if (from >= to) {
      return Certificate.NONE;
    }
    List<Box> freed = Box.shared(gone, index.region(handle));
    int[] earlier = index.overlapping(freed, from, to, other -> contradicts(handle, other));
    Budget budget = new Budget(questions.steps);
    return correlated(handle, earlier, new Correlating(handle, budget), leastCovered, budget);
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
      if (!contradicts(handle, other) || standings.apply(other) instanceof Standing.Covered) {
        return false;
      }
      Containment inside = contains(handle, other, budget);
      Containment outside =
          inside == Containment.INSIDE ? Containment.UNKNOWN : contains(other, handle, budget);
      settled &=
          inside == Containment.INSIDE
              || outside == Containment.INSIDE
              || inside == Containment.NOT_INSIDE && outside == Containment.NOT_INSIDE;
      return inside == Containment.NOT_INSIDE && outside == Containment.NOT_INSIDE;
    }
  }

  /** A point of both that a rule decides which is looked for, if one is found cheaply; or null. */
  private Pair.Found quick(
      int handle, int other, Correlating will, LeastCoveredPoint leastCovered) {
    if (decidesInside(handle, other)) {
      return new Pair.Found(other, point(other));
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
        .map(point -> new Pair.Found(index.first(point), point))
        .orElse(null);
  }

  /**
   * Every earlier rule that correlates with this (or that it generalises), in order.
   *
   * @return also whether these are all; if not, the budget left others open
   */
  Partners all(int handle, boolean generalised, LeastCoveredPoint leastCovered) {
    Budget budget = new Budget(questions.steps * QUESTIONS);
    List<Integer> out = new ArrayList<>();
    boolean complete = true;
    for (int other : earlier(handle)) {
      Pair pair =
          generalised
              ? generalises(handle, other, budget)
              : correlates(handle, other, leastCovered, budget);
      switch (pair) {
        case Pair.Found found -> out.add(other);
        case Pair.Undecided open -> complete = false;
        case Pair.None none -> {}
      }
    }
    return new Partners(out, complete);
  }

  /**
   * @param complete whether there are no others
   */
  record Partners(List<Integer> handles, boolean complete) {}
}
