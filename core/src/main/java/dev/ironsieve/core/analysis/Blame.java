package dev.ironsieve.core.analysis;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Candidate;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;

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

  private final List<Box> target;
  private final List<Candidate> candidates;
  private final Budget budget;

  private Blame(List<Box> target, List<Candidate> candidates, Budget budget) {
    this.target = target;
    this.candidates = candidates;
    this.budget = budget;
  }

  /**
   * @param candidates boxes of rules; those of one rule stand together
   * @param cover rules that together hold all of the target
   * @return the smallest such set; or, past the budget, one that was reduced as far as it went; or
   *     null if it could not even be made irreducible
   */
  static Verdict of(List<Box> target, List<Candidate> candidates, BitSet cover, Budget budget) {
    Blame blame = new Blame(target, candidates, budget);
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
    if (known.cardinality() == 2) {
      int whole = holdsAll();
      if (whole >= 0) {
        BitSet only = new BitSet();
        only.set(whole);
        return new Verdict(only, true);
      }
      return new Verdict(known, true);
    }
    List<BitSet> mustHit = new ArrayList<>();
    while (known.cardinality() > 1) {
      if (mustHit.isEmpty()) {
        mustHit.add(holding(target.getFirst().lowest()));
      }
      BitSet guess = HittingSet.smallest(mustHit, known.cardinality(), budget);
      if (guess == null) {
        // Nothing smaller hits all points; unless the budget ran out, that is a proof.
        return new Verdict(known, budget.take(0));
      }
      switch (search(guess)) {
        case Outcome.Covered covered -> {
          return new Verdict(guess, true);
        }
        case Outcome.Uncovered uncovered -> mustHit.add(holding(uncovered.point()));
        case Outcome.Exhausted exhausted -> {
          return new Verdict(known, false);
        }
      }
    }
    return new Verdict(known, true);
  }

  /** A rule that holds all of the target by itself, or -1. */
  private int holdsAll() {
    for (int i = 0; i < candidates.size(); ) {
      int rule = candidates.get(i).rule();
      List<Box> region = new ArrayList<>(2);
      for (; i < candidates.size() && candidates.get(i).rule() == rule; i++) {
        region.add(candidates.get(i).box());
      }
      if (Questions.holdsAll(region, target)) {
        return rule;
      }
    }
    return -1;
  }

  private BitSet holding(int[] point) {
    budget.take(candidates.size());
    BitSet rules = new BitSet();
    for (Candidate candidate : candidates) {
      if (candidate.box().contains(point)) {
        rules.set(candidate.rule());
      }
    }
    return rules;
  }

  private Outcome search(BitSet rules) {
    List<Candidate> some = candidates.stream().filter(c -> rules.get(c.rule())).toList();
    return CoverSearch.search(target, some, budget);
  }
}
