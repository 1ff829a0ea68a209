package dev.ironsieve.core.analysis;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.cover.CoverSearch.Picker;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntFunction;

/**
 * The smallest set of rules that covers a target, and of several such sets the first in rule order,
 * so that the answer follows from the rules alone and not from how it was searched for. First a
 * cover is reduced by deletion. Then implicit hitting sets (Ignatiev, Previti, Liffiton,
 * Marques-Silva: Smallest MUS Extraction with Minimal Hitting Set Dualization, CP 2015): each point
 * that a guess leaves uncovered names the rules of which the answer needs at least one. A cover
 * hits all of these sets, so the first smallest hitting set that covers the target is the answer.
 */
final class MinimalCause {
  /**
   * @param rules the rules to blame
   * @param minimality how small they are proven to be
   */
  record Result(IntSet rules, Minimality minimality) {
    boolean smallest() {
      return minimality == Minimality.SMALLEST;
    }
  }

  /** The rules that may be a cause. */
  interface Candidates {
    /** Those that hold a point, in rule order. */
    int[] holding(int[] point);

    /** Where a rule stands among all rules. */
    int position(int rule);
  }

  private final List<Box> target;
  private final Candidates candidates;
  private final IntFunction<List<Box>> regions;
  private final Picker picker;
  private final Budget budget;
  private boolean irreducible = true;
  private final List<int[]> uncovered = new ArrayList<>(); // points that fewer rules leave open

  private MinimalCause(
      List<Box> target,
      Candidates candidates,
      IntFunction<List<Box>> regions,
      Picker picker,
      Budget budget) {
    this.target = target;
    this.candidates = candidates;
    this.regions = regions;
    this.picker = picker;
    this.budget = budget;
  }

  /**
   * @param regions the boxes of a rule
   * @param picker of points that some of the rules leave open; the fewer rules hold them, the
   *     sooner it is known which are needed
   * @param cover rules that together hold all of the target
   * @return the smallest such set, the first in rule order; past the budget a set that may be
   *     another of that size, or larger, as its minimality says
   */
  static Result of(
      List<Box> target,
      Candidates candidates,
      IntFunction<List<Box>> regions,
      Picker picker,
      IntSet cover,
      Budget budget) {
    MinimalCause minimalCause = new MinimalCause(target, candidates, regions, picker, budget);
    IntSet reduced = minimalCause.reduce(cover);
    return minimalCause.irreducible
        ? minimalCause.smallest(reduced)
        : new Result(reduced, Minimality.UNPROVEN);
  }

  /** Leaves out one rule after the other, the latest first, as long as the rest still covers. */
  private IntSet reduce(IntSet cover) {
    int[] rules = cover.toArray();
    IntSet kept = cover;
    for (int i = rules.length - 1; i >= 0 && kept.size() > 1; i--) {
      if (!kept.contains(rules[i])) {
        continue;
      }
      switch (search(kept.minus(IntSet.of(rules[i])))) {
        case Outcome.Covered covered -> kept = covered.rules();
        case Outcome.Uncovered found -> uncovered.add(found.point());
        case Outcome.Exhausted exhausted -> {
          irreducible = false;
          return kept;
        }
      }
    }
    return kept;
  }

  private Result smallest(IntSet known) {
    int size = (int) known.size();
    int least = 1;
    Needed needed = new Needed();
    uncovered.forEach(point -> needed.add(holding(point)));
    while (true) {
      IntSet guess = needed.firstSmallest(least, size);
      if (guess == null) { // the budget ran out, since the known cover is a hitting set
        return new Result(known, least == size ? Minimality.SMALLEST : Minimality.IRREDUCIBLE);
      }
      least = (int) guess.size(); // with more to hit it takes no fewer
      switch (search(guess)) {
        case Outcome.Covered covered -> {
          return new Result(guess, Minimality.SMALLEST);
        }
        case Outcome.Uncovered found -> needed.add(holding(found.point()));
        case Outcome.Exhausted exhausted -> {
          return new Result(known, least == size ? Minimality.SMALLEST : Minimality.IRREDUCIBLE);
        }
      }
    }
  }

  /** The sets of rules of which a cover needs at least one each. */
  private final class Needed {
    private final List<int[]> sets = new ArrayList<>();

    void add(int[] rules) {
      sets.add(rules);
    }

    /** Of the smallest hitting sets the first in rule order; null if the budget ran out. */
    IntSet firstSmallest(int least, int most) {
      int[] rules =
          sets.stream()
              .flatMapToInt(Arrays::stream)
              .distinct()
              .boxed()
              .sorted(Comparator.comparingInt(candidates::position))
              .mapToInt(Integer::intValue)
              .toArray();
      Map<Integer, Integer> numbers = new HashMap<>(); // without gaps: bit sets are small
      for (int number = 0; number < rules.length; number++) {
        numbers.put(rules[number], number);
      }
      List<BitSet> numbered = new ArrayList<>();
      for (int[] set : sets) {
        BitSet bits = new BitSet();
        Arrays.stream(set).map(numbers::get).forEach(bits::set);
        numbered.add(bits);
      }
      BitSet hitting = HittingSet.firstSmallest(numbered, least, most, budget);
      return hitting == null
          ? null
          : IntSet.of(hitting.stream().map(number -> rules[number]).toArray());
    }
  }

  private int[] holding(int[] point) {
    int[] rules = candidates.holding(point);
    budget.take(rules.length);
    return rules;
  }

  private Outcome search(IntSet rules) {
    return CoverSearch.search(
        target, CoverSearch.candidates(rules.toArray(), regions), picker, budget);
  }
}
