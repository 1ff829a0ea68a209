package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.Pair;
import dev.ironsieve.core.analysis.Certificate.Standing;
import dev.ironsieve.core.analysis.Questions.Obstacle;
import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.order.Around;
import dev.ironsieve.core.order.Order;
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
  private final Order order;
  private final IntFunction<Standing> standings;
  private Witnesses witnesses; // while they are not outdated

  /**
   * @param standings what is known of each rule, by slot
   */
  Pairs(Questions questions, IntFunction<Standing> standings) {
    this.questions = questions;
    this.order = questions.order;
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
   * test holds, or {@link Order#NONE}.
   */
  private int firstInside(int slot, Around around, IntPredicate test) {
    if (witnesses != null) {
      return witnesses.firstInside(slot, test);
    }
    int[] first = {Order.NONE};
    around.some(
        0,
        order.position(slot),
        other -> contradicts(slot, other) && decidesInside(slot, other),
        other -> {
          if (isAbove(other, first[0]) && test.test(other)) {
            first[0] = other;
          }
          return false;
        });
    return first[0];
  }

  private boolean decidesInside(int slot, int other) {
    return standings.apply(other) instanceof Standing.Decides decides
        && order.holds(slot, decides.point());
  }

  private boolean isAbove(int other, int best) {
    return best == Order.NONE || order.position(other) < order.position(best);
  }

  private int[] point(int slot) {
    return ((Standing.Decides) standings.apply(slot)).point();
  }

  /** The earlier rules with another verdict that a rule meets. */
  private int[] earlier(int slot) {
    return order.meeting(
        order.region(slot), 0, order.position(slot), other -> contradicts(slot, other));
  }

  private boolean contradicts(int slot, int other) {
    return questions.verdict(slot) != questions.verdict(other);
  }

  /** The first earlier rule with another verdict that decides something and lies inside. */
  Pair generalised(int slot, Around around) {
    if (isRedundantAbove(slot)) {
      return Certificate.NONE;
    }
    Budget budget = new Budget(questions.steps);
    boolean[] open = new boolean[1];
    int other =
        firstInside(
            slot,
            around,
            o -> {
              Containment inside = contains(slot, o, budget);
              open[0] |= inside == Containment.UNKNOWN;
              return inside == Containment.INSIDE;
            });
    if (other != Order.NONE) {
      return new Pair.Found(other, point(other));
    }
    return open[0] ? new Pair.Undecided() : Certificate.NONE;
  }

  /** Whether {@code slot} generalises this earlier rule, which it meets. */
  Pair generalises(int slot, int other) {
    return generalises(slot, other, new Budget(questions.steps));
  }

  private Pair generalises(int slot, int other, Budget budget) {
    if (!contradicts(slot, other) || !decidesInside(slot, other)) {
      return Certificate.NONE;
    }
    return switch (contains(slot, other, budget)) {
      case INSIDE -> new Pair.Found(other, point(other));
      case NOT_INSIDE -> Certificate.NONE;
      case UNKNOWN -> new Pair.Undecided();
    };
  }

  private Containment contains(int outer, int inner, Budget budget) {
    return Containment.of(order.region(inner), order.region(outer), budget);
  }

  /**
   * The first earlier rule that correlates with this: the same one whatever was edited before, as
   * long as the budget suffices.
   */
  Pair correlated(int slot, Around around, Corners corners) {
    if (isRedundantAbove(slot)) {
      return Certificate.NONE;
    }
    Budget budget = new Budget(questions.steps);
    Correlating will = new Correlating(slot, budget);
    int first = firstInside(slot, around, will);
    int end =
        first == Order.NONE
            ? endOfDeciding(slot)
            : Math.min(endOfDeciding(slot), order.position(first));
    int[] above = around.all(0, end, other -> contradicts(slot, other));
    Pair earlier = correlated(slot, above, will, corners, budget);
    return first == Order.NONE || earlier instanceof Pair.Found
        ? earlier
        : new Pair.Found(first, point(first));
  }

  /** Whether it is known that nothing of the rule's match is decided otherwise. */
  private boolean isRedundantAbove(int slot) {
    return standings.apply(slot) instanceof Standing.Covered covered && !covered.shadowed();
  }

  /** No rule at this position or below, but above {@code slot}, decides anything of its match. */
  private int endOfDeciding(int slot) {
    return standings.apply(slot) instanceof Standing.Covered covered
        ? Arrays.stream(covered.causes()).map(order::position).max().orElseThrow() + 1
        : order.position(slot);
  }

  /**
   * The first of some earlier rules that decides something of the match.
   *
   * @param earlier by position
   * @param will which of them are looked for
   */
  private Pair correlated(
      int slot, int[] earlier, Correlating will, Corners corners, Budget budget) {
    boolean settled = true;
    for (int other : earlier) {
      if (will.test(other)) {
        Pair found = decidesSomething(slot, other, will, corners, budget);
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
      int slot, int other, Correlating will, Corners corners, Budget budget) {
    Pair.Found quick = quick(slot, other, will, corners);
    if (quick != null) {
      return quick;
    }
    List<Box> shared = Box.shared(order.region(slot), order.region(other));
    // Whichever of those that are looked for decides there, so only the rest keeps this one off.
    CoverSearch.Holder notLookedFor =
        point -> {
          int first = order.first(point);
          return will.test(first) ? CoverSearch.Holder.NOBODY : first;
        };
    return switch (CoverSearch.search(shared, notLookedFor, corners, order::region, budget)) {
      case Outcome.Uncovered uncovered ->
          new Pair.Found(order.first(uncovered.point()), uncovered.point());
      case Outcome.Covered covered -> Certificate.NONE;
      case Outcome.Exhausted exhausted -> new Pair.Undecided();
    };
  }

  /** Whether this earlier rule, which it meets, correlates with {@code slot}. */
  Pair correlates(int slot, int other, Corners corners) {
    return correlates(slot, other, corners, new Budget(questions.steps));
  }

  private Pair correlates(int slot, int other, Corners corners, Budget budget) {
    Correlating will = new Correlating(slot, budget).only(other);
    return will.test(other)
        ? correlated(slot, new int[] {other}, will, corners, budget)
        : will.settled ? Certificate.NONE : new Pair.Undecided();
  }

  /**
   * Whether a rule that meets {@code slot} where something was taken away correlates with it.
   *
   * @param gone what was taken away
   * @param from no rule above this position was concerned
   * @param to only rules above this position are looked for
   */
  Pair revealed(int slot, List<Box> gone, int from, int to, Corners corners) {
    if (from >= to) {
      return Certificate.NONE;
    }
    List<Box> freed = Box.shared(gone, order.region(slot));
    int[] earlier = order.meeting(freed, from, to, other -> contradicts(slot, other));
    Budget budget = new Budget(questions.steps);
    return correlated(slot, earlier, new Correlating(slot, budget), corners, budget);
  }

  /**
   * Whether rules that meet one rule may correlate with it, each asked about once; those of which
   * the budget leaves that open are not looked for. For one thread.
   */
  private final class Correlating implements IntPredicate {
    private final int slot;
    private final Budget budget;
    private final Map<Integer, Boolean> known = new HashMap<>();
    private int only = Order.NONE;

    /** False as soon as the budget left one open. */
    private boolean settled = true;

    Correlating(int slot, Budget budget) {
      this.slot = slot;
      this.budget = budget;
    }

    /** Looks for one rule only. */
    Correlating only(int other) {
      only = other;
      return this;
    }

    @Override
    public boolean test(int other) {
      return (only == Order.NONE || only == other) && known.computeIfAbsent(other, this::asked);
    }

    private boolean asked(int other) {
      if (!contradicts(slot, other) || standings.apply(other) instanceof Standing.Covered) {
        return false;
      }
      Containment inside = contains(slot, other, budget);
      Containment outside =
          inside == Containment.INSIDE ? Containment.UNKNOWN : contains(other, slot, budget);
      settled &=
          inside == Containment.INSIDE
              || outside == Containment.INSIDE
              || inside == Containment.NOT_INSIDE && outside == Containment.NOT_INSIDE;
      return inside == Containment.NOT_INSIDE && outside == Containment.NOT_INSIDE;
    }
  }

  /** A point of both that a rule decides which is looked for, if one is found cheaply; or null. */
  private Pair.Found quick(int slot, int other, Correlating will, Corners corners) {
    if (decidesInside(slot, other)) {
      return new Pair.Found(other, point(other));
    }
    List<Box> shared = Box.shared(order.region(slot), order.region(other));
    return questions
        .guessFromCorners(
            shared,
            corners,
            slot,
            point -> {
              int first = order.first(point);
              return will.test(first) ? Obstacle.NOTHING : first;
            })
        .map(point -> new Pair.Found(order.first(point), point))
        .orElse(null);
  }

  /**
   * Every earlier rule that correlates with this (or that it generalises), in order.
   *
   * @return also whether these are all; if not, the budget left others open
   */
  Partners all(int slot, boolean generalised, Corners corners) {
    Budget budget = new Budget(questions.steps * QUESTIONS);
    List<Integer> out = new ArrayList<>();
    boolean complete = true;
    for (int other : earlier(slot)) {
      Pair pair =
          generalised ? generalises(slot, other, budget) : correlates(slot, other, corners, budget);
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
  record Partners(List<Integer> slots, boolean complete) {}
}
