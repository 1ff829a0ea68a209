package dev.ironsieve.core.analysis;

import dev.ironsieve.core.cover.Budget;
import java.util.BitSet;
import java.util.List;

/** The smallest set of numbers that has a member in common with each of some sets. */
final class HittingSet {
  /** A comparison of two boxes looks at about so many words. */
  private static final int WORDS_OF_A_STEP = 16;

  private final List<BitSet> sets;
  private final Budget budget;
  private final long stepsOfOne; // to compare one set
  private BitSet best;

  private HittingSet(List<BitSet> sets, Budget budget) {
    this.sets = sets;
    int words = sets.stream().mapToInt(BitSet::length).max().orElse(0) / Long.SIZE + 1;
    stepsOfOne = 1 + words / WORDS_OF_A_STEP;
    this.budget = budget;
  }

  /**
   * A hitting set with fewer than {@code below} members that is smallest of all; {@code null} if
   * there is none that small or the budget ran out. Exponential in {@code below}.
   *
   * @param sets of small numbers
   */
  static BitSet smallest(List<BitSet> sets, int below, Budget budget) {
    HittingSet search = new HittingSet(sets, budget);
    for (int size = 1; size < below && search.best == null; size++) {
      if (!search.extend(new BitSet(), size)) {
        return null;
      }
    }
    return search.best;
  }

  /** False if the budget ran out. */
  private boolean extend(BitSet chosen, int left) {
    if (!budget.take(sets.size() * stepsOfOne)) {
      return false;
    }
    BitSet unhit = null;
    for (BitSet set : sets) {
      if (!set.intersects(chosen) && (unhit == null || set.cardinality() < unhit.cardinality())) {
        unhit = set;
      }
    }
    if (unhit == null) {
      best = (BitSet) chosen.clone();
      return true;
    }
    if (left == 0) {
      return true;
    }
    for (int i = unhit.nextSetBit(0); i >= 0 && best == null; i = unhit.nextSetBit(i + 1)) {
      chosen.set(i);
      if (!extend(chosen, left - 1)) {
        return false;
      }
      chosen.clear(i);
    }
    return true;
  }
}
