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
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.IntFunction;
import java.util.function.IntPredicate;

/**
 * Correlated and generalised: how a rule overlaps earlier rules with another verdict that decide
 * something there. One such rule is enough for a finding; {@link #all} has every one.
 */
final class Pairs {
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
    int other = firstInside(slot, around, o -> contains(slot, o));
    return other == Order.NONE ? Certificate.NONE : new Pair.Found(other, point(other));
  }

  /** Whether {@code slot} generalises this earlier rule, which it meets. */
  Pair generalises(int slot, int other) {
    return contradicts(slot, other) && decidesInside(slot, other) && contains(slot, other)
        ? new Pair.Found(other, point(other))
        : Certificate.NONE;
  }

  private boolean contains(int outer, int inner) {
    return Questions.holdsAll(order.region(outer), order.region(inner));
  }

  /** An earlier rule that correlates with this. */
  Pair correlated(int slot, Around around, Corners corners) {
    if (isRedundantAbove(slot)) {
      return Certificate.NONE;
    }
    if (standings.apply(slot) instanceof Standing.Covered covered
        && mayCorrelate(slot, covered.decidedBy())) {
      return new Pair.Found(covered.decidedBy(), covered.point());
    }
    IntPredicate will = mayCorrelate(slot);
    Pair.Found[] found = new Pair.Found[1];
    Set<Integer> open = new LinkedHashSet<>();
    around.some(
        0,
        endOfDeciding(slot),
        other -> contradicts(slot, other),
        other -> {
          if (!open.contains(other) && will.test(other)) {
            found[0] = quick(slot, other, will, corners);
            open.add(other);
          }
          return found[0] != null;
        });
    return found[0] == null ? exactly(slot, open, will, corners) : found[0];
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
   * @param will which of the rules that decide something of the match are looked for
   */
  private Pair correlated(int slot, int[] earlier, IntPredicate will, Corners corners) {
    List<Integer> open = new ArrayList<>();
    for (int other : earlier) {
      if (!will.test(other)) {
        continue;
      }
      Pair.Found found = quick(slot, other, will, corners);
      if (found != null) {
        return found;
      }
      open.add(other);
    }
    return exactly(slot, open, will, corners);
  }

  private Pair exactly(int slot, Collection<Integer> open, IntPredicate will, Corners corners) {
    Budget budget = new Budget(questions.steps);
    boolean settled = true;
    for (int other : open) {
      List<Box> shared = Box.shared(order.region(slot), order.region(other));
      // Whichever of those that are looked for decides there, so only the rest keeps this one off.
      CoverSearch.Holder notLookedFor =
          point -> {
            int first = order.first(point);
            return will.test(first) ? CoverSearch.Holder.NOBODY : first;
          };
      switch (CoverSearch.search(shared, notLookedFor, corners, order::region, budget)) {
        case Outcome.Uncovered uncovered -> {
          return new Pair.Found(order.first(uncovered.point()), uncovered.point());
        }
        case Outcome.Covered covered -> {}
        case Outcome.Exhausted exhausted -> settled = false;
      }
    }
    return settled ? Certificate.NONE : new Pair.Undecided();
  }

  /** Whether this earlier rule, which it meets, correlates with {@code slot}. */
  Pair correlates(int slot, int other, Corners corners) {
    return mayCorrelate(slot, other)
        ? correlated(slot, new int[] {other}, o -> o == other, corners)
        : Certificate.NONE;
  }

  /**
   * Whether a rule that meets {@code slot} where something was taken away correlates with it.
   *
   * @param gone what was taken away
   * @param from no rule above this position was concerned
   */
  Pair revealed(int slot, List<Box> gone, int from, Corners corners) {
    List<Box> freed = Box.shared(gone, order.region(slot));
    int[] earlier =
        order.meeting(freed, from, order.position(slot), other -> contradicts(slot, other));
    return correlated(slot, earlier, mayCorrelate(slot), corners);
  }

  /** The same for many rules, which may be asked about again and again; for one thread. */
  private IntPredicate mayCorrelate(int slot) {
    Map<Integer, Boolean> known = new HashMap<>();
    return other -> known.computeIfAbsent(other, o -> mayCorrelate(slot, o));
  }

  private boolean mayCorrelate(int slot, int other) {
    return contradicts(slot, other)
        && !(standings.apply(other) instanceof Standing.Covered)
        && !contains(slot, other)
        && !contains(other, slot);
  }

  /** A point of both that a rule decides which is looked for, if one is found cheaply; or null. */
  private Pair.Found quick(int slot, int other, IntPredicate will, Corners corners) {
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
   * Every earlier rule that correlates with this (or that it generalises), in order; those that the
   * budget leaves open are not among them.
   */
  List<Integer> all(int slot, boolean generalised, Corners corners) {
    List<Integer> out = new ArrayList<>();
    for (int other : earlier(slot)) {
      Pair pair = generalised ? generalises(slot, other) : correlates(slot, other, corners);
      if (pair instanceof Pair.Found) {
        out.add(other);
      }
    }
    return out;
  }
}
