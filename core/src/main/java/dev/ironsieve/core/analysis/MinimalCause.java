package dev.ironsieve.core.analysis;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.cover.CoverSearch.Picker;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntFunction;

/**
 * Which rules are to blame for a cover: first an irreducible set by deletion, then the smallest by
 * implicit hitting sets (Ignatiev, Previti, Liffiton, Marques-Silva: Smallest MUS Extraction with
 * Minimal Hitting Set Dualization, CP 2015): each point that a guess leaves uncovered names the
 * rules of which one at least must be in the answer.
 */
final class MinimalCause {
  /**
   * @param rules the rules to blame
   * @param minimality what is proven of them
   */
  record Verdict(IntSet rules, Minimality minimality) {
    boolean smallest() {
      return minimality == Minimality.SMALLEST;
    }
  }

  /** Finds the rules that may be blamed and hold a point. */
  interface Holders {
    int[] at(int[] point);
  }

  private final List<Box> target;
  private final Holders holders;
  private final IntFunction<List<Box>> regions;
  private final Picker picker;
  private final Budget budget;
  private boolean irreducible = true;
  private final List<int[]> uncovered = new ArrayList<>(); // points that fewer rules leave open

  private MinimalCause(
      List<Box> target,
      Holders holders,
      IntFunction<List<Box>> regions,
      Picker picker,
      Budget budget) {
    this.target = target;
    this.holders = holders;
    this.regions = regions;
    this.picker = picker;
    this.budget = budget;
  }

  /**
   * @param holders finds those that may be blamed
   * @param regions the boxes of a rule
   * @param picker of points that some of the rules leave open; the fewer rules hold them, the
   *     sooner it is known which are needed
   * @param cover rules that together hold all of the target
   * @return the smallest such set; or, past the budget, one that was reduced as far as it went
   */
  static Verdict of(
      List<Box> target,
      Holders holders,
      IntFunction<List<Box>> regions,
      Picker picker,
      IntSet cover,
      Budget budget) {
    MinimalCause minimalCause = new MinimalCause(target, holders, regions, picker, budget);
    IntSet reduced = minimalCause.reduce(cover);
    return minimalCause.irreducible
        ? minimalCause.smallest(reduced)
        : new Verdict(reduced, Minimality.UNPROVEN);
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

  private Verdict smallest(IntSet known) {
    int size = (int) known.size();
    if (size < 2) {
      return new Verdict(known, Minimality.SMALLEST);
    }
    if (size == 2) {
      return smallestOfTwo(known);
    }
    Met met = new Met();
    uncovered.forEach(point -> met.add(holding(point)));
    int least = 1;
    while (true) {
      BitSet hitting = HittingSet.smallest(met.sets, least, size, budget);
      if (hitting == null) {
        // Nothing smaller hits all points; unless the budget ran out, that is a proof.
        return new Verdict(known, budget.take(0) ? Minimality.SMALLEST : Minimality.IRREDUCIBLE);
      }
      least = hitting.cardinality(); // with more to hit it takes no fewer
      IntSet guess = met.rules(hitting);
      switch (search(guess)) {
        case Outcome.Covered covered -> {
          return new Verdict(guess, Minimality.SMALLEST);
        }
        case Outcome.Uncovered found -> met.add(holding(found.point()));
        case Outcome.Exhausted exhausted -> {
          return new Verdict(known, Minimality.IRREDUCIBLE);
        }
      }
    }
  }

  /** The rules that were met so far, numbered as they came: without gaps, sets are small. */
  private static final class Met {
    private final Map<Integer, Integer> numbers = new HashMap<>();
    private final List<Integer> rules = new ArrayList<>();

    /** Of which sets of rules, by their numbers here, each needs one. */
    final List<BitSet> sets = new ArrayList<>();

    void add(int[] needed) {
      BitSet own = new BitSet();
      for (int rule : needed) {
        Integer known = numbers.putIfAbsent(rule, rules.size());
        own.set(known == null ? rules.size() : known);
        if (known == null) {
          rules.add(rule);
        }
      }
      sets.add(own);
    }

    IntSet rules(BitSet some) {
      return IntSet.of(some.stream().map(rules::get).toArray());
    }
  }

  /** Two rules, unless one rule holds all of the target by itself. */
  private Verdict smallestOfTwo(IntSet known) {
    boolean settled = true;
    for (int rule : holding(target.getFirst().lowest())) {
      switch (Containment.of(target, regions.apply(rule), budget)) {
        case INSIDE -> {
          return new Verdict(IntSet.of(rule), Minimality.SMALLEST);
        }
        case NOT_INSIDE -> {}
        case UNKNOWN -> settled = false;
      }
    }
    return new Verdict(known, settled ? Minimality.SMALLEST : Minimality.IRREDUCIBLE);
  }

  private int[] holding(int[] point) {
    int[] rules = holders.at(point);
    budget.take(rules.length);
    return rules;
  }

  private Outcome search(IntSet rules) {
    return CoverSearch.search(
        target, CoverSearch.candidates(rules.toArray(), regions), picker, budget);
  }
}
