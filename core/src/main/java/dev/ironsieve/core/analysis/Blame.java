package dev.ironsieve.core.analysis;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.Arrays;
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
final class Blame {
  /**
   * @param rules the rules to blame
   * @param smallest whether it is proven that fewer rules cannot do it
   */
  record Verdict(BitSet rules, boolean smallest) {}

  /** Finds the rules that may be blamed and hold a point. */
  interface Holders {
    int[] at(int[] point);
  }

  private final List<Box> target;
  private final Holders holders;
  private final IntFunction<List<Box>> regions;
  private final Budget budget;

  private Blame(List<Box> target, Holders holders, IntFunction<List<Box>> regions, Budget budget) {
    this.target = target;
    this.holders = holders;
    this.regions = regions;
    this.budget = budget;
  }

  /**
   * @param holders finds those that may be blamed
   * @param regions the boxes of a rule
   * @param cover rules that together hold all of the target
   * @return the smallest such set; or, past the budget, one that was reduced as far as it went; or
   *     null if it could not even be made irreducible
   */
  static Verdict of(
      List<Box> target,
      Holders holders,
      IntFunction<List<Box>> regions,
      BitSet cover,
      Budget budget) {
    Blame blame = new Blame(target, holders, regions, budget);
    BitSet irreducible = blame.reduce(cover);
    return irreducible == null ? null : blame.smallest(irreducible);
  }

  /** Leaves out one rule after the other, the latest first, as long as the rest still covers. */
  private BitSet reduce(BitSet cover) {
    BitSet kept = (BitSet) cover.clone();
    for (int rule = kept.length() - 1; rule >= 0; rule = kept.previousSetBit(rule - 1)) {
      if (kept.cardinality() == 1) {
        break;
      }
      kept.clear(rule);
      switch (search(kept)) {
        case Outcome.Covered covered -> kept.and(covered.rules());
        case Outcome.Uncovered uncovered -> kept.set(rule);
        case Outcome.Exhausted exhausted -> {
          return null;
        }
      }
    }
    return kept;
  }

  private Verdict smallest(BitSet known) {
    if (known.cardinality() < 2) {
      return new Verdict(known, true);
    }
    if (known.cardinality() == 2) {
      int whole = holdsAll();
      if (whole >= 0) {
        BitSet only = new BitSet();
        only.set(whole);
        return new Verdict(only, true);
      }
      return new Verdict(known, true);
    }
    Met met = new Met();
    met.add(holding(target.getFirst().lowest()));
    int least = 1;
    while (true) {
      BitSet hitting = HittingSet.smallest(met.sets, least, known.cardinality(), budget);
      if (hitting == null) {
        // Nothing smaller hits all points; unless the budget ran out, that is a proof.
        return new Verdict(known, budget.take(0));
      }
      least = hitting.cardinality(); // with more to hit it takes no fewer
      BitSet guess = met.rules(hitting);
      switch (search(guess)) {
        case Outcome.Covered covered -> {
          return new Verdict(guess, true);
        }
        case Outcome.Uncovered uncovered -> met.add(holding(uncovered.point()));
        case Outcome.Exhausted exhausted -> {
          return new Verdict(known, false);
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

    BitSet rules(BitSet some) {
      BitSet out = new BitSet();
      some.stream().forEach(number -> out.set(rules.get(number)));
      return out;
    }
  }

  /** A rule that holds all of the target by itself, or -1. */
  private int holdsAll() {
    return Arrays.stream(holding(target.getFirst().lowest()))
        .filter(rule -> Questions.holdsAll(regions.apply(rule), target))
        .findFirst()
        .orElse(-1);
  }

  private int[] holding(int[] point) {
    int[] rules = holders.at(point);
    budget.take(rules.length);
    return rules;
  }

  private Outcome search(BitSet rules) {
    return CoverSearch.search(target, CoverSearch.candidates(rules.stream(), regions), budget);
  }
}
