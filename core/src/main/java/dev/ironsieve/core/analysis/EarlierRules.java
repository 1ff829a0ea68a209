package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.StandingProof;
import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.ruleindex.OverlapQuery;
import dev.ironsieve.core.ruleindex.RuleIndex;
import java.util.function.IntFunction;
import java.util.function.IntPredicate;

/**
 * The earlier rules with another verdict that overlap a rule: the candidates for {@link
 * Correlation} and {@link Generalisation}.
 */
final class EarlierRules {
  final Questions questions;
  final RuleIndex index;
  private final IntFunction<StandingProof> standings;
  private Witnesses witnesses; // null after an edit

  /**
   * @param standings the standing of each rule, by handle
   */
  EarlierRules(Questions questions, IntFunction<StandingProof> standings) {
    this.questions = questions;
    this.index = questions.index;
    this.standings = standings;
  }

  /**
   * @param current the points that all rules decide; null after an edit
   */
  void use(Witnesses current) {
    witnesses = current;
  }

  /**
   * The first earlier rule with another verdict whose witness lies in this rule and for which a
   * test holds, or {@link RuleIndex#NONE}.
   */
  int firstInside(int handle, OverlapQuery overlaps, IntPredicate test) {
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

  private boolean isAbove(int other, int best) {
    return best == RuleIndex.NONE || index.position(other) < index.position(best);
  }

  /** Whether the witness of the earlier rule lies in this rule. */
  boolean decidesInside(int handle, int other) {
    return standings.apply(other) instanceof StandingProof.Decides decides
        && index.holds(handle, decides.point());
  }

  StandingProof standing(int handle) {
    return standings.apply(handle);
  }

  /** The witness of a rule that decides something. */
  int[] point(int handle) {
    return ((StandingProof.Decides) standings.apply(handle)).point();
  }

  /** All of them, by position. */
  int[] of(int handle) {
    return index.overlapping(
        index.region(handle), 0, index.position(handle), other -> contradicts(handle, other));
  }

  boolean contradicts(int handle, int other) {
    return questions.verdict(handle) != questions.verdict(other);
  }

  /** Whether every connection of the rule is known to get the verdict that it gives. */
  boolean isRedundantAbove(int handle) {
    return standings.apply(handle) instanceof StandingProof.Covered covered && !covered.shadowed();
  }

  Containment contains(int outer, int inner, Budget budget) {
    return Containment.of(index.region(inner), index.region(outer), budget);
  }
}
