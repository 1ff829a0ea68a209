package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.PairProof;
import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.ruleindex.OverlapQuery;
import dev.ironsieve.core.ruleindex.RuleIndex;

/**
 * Generalised: a rule whose match contains that of an earlier rule with another verdict that
 * decides something. The first such rule is enough for the finding.
 */
final class Generalisation {
  private final EarlierRules earlier;

  Generalisation(EarlierRules earlier) {
    this.earlier = earlier;
  }

  /** The first earlier rule with another verdict that decides something and lies inside. */
  PairProof generalised(int handle, OverlapQuery overlaps) {
    if (earlier.isRedundantAbove(handle)) {
      return Certificate.NONE;
    }
    Budget budget = new Budget(earlier.questions.steps);
    boolean[] open = new boolean[1];
    int other =
        earlier.firstInside(
            handle,
            overlaps,
            o -> {
              Containment inside = earlier.contains(handle, o, budget);
              open[0] |= inside == Containment.UNKNOWN;
              return inside == Containment.INSIDE;
            });
    if (other != RuleIndex.NONE) {
      return new PairProof.Found(other, earlier.point(other));
    }
    return open[0] ? new PairProof.Undecided() : Certificate.NONE;
  }

  /** Whether {@code handle} generalises this earlier rule, which it meets. */
  PairProof generalises(int handle, int other) {
    return generalises(handle, other, new Budget(earlier.questions.steps));
  }

  private PairProof generalises(int handle, int other, Budget budget) {
    if (!earlier.contradicts(handle, other) || !earlier.decidesInside(handle, other)) {
      return Certificate.NONE;
    }
    return switch (earlier.contains(handle, other, budget)) {
      case INSIDE -> new PairProof.Found(other, earlier.point(other));
      case NOT_INSIDE -> Certificate.NONE;
      case UNKNOWN -> new PairProof.Undecided();
    };
  }

  /** Every earlier rule that it generalises. */
  PartnerHandles all(int handle) {
    Budget budget = new Budget(earlier.questions.steps * PartnerHandles.QUESTIONS);
    return PartnerHandles.of(earlier.of(handle), other -> generalises(handle, other, budget));
  }
}
