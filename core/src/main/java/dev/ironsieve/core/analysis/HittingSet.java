package dev.ironsieve.core.analysis;

import dev.ironsieve.core.cover.Budget;
import java.util.Arrays;
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
   */
  static BitSet smallest(List<BitSet> sets, int below, Budget budget) {
    BitSet all = new BitSet();
    sets.forEach(all::or);
    int[] members = all.stream().toArray();
    HittingSet search = new HittingSet(sets.stream().map(s -> packed(s, members)).toList(), budget);
    for (int size = 1; size < below && search.best == null; size++) {
      if (!search.extend(new BitSet(), size)) {
        return null;
      }
    }
    return search.best == null ? null : unpacked(search.best, members);
  }

  /** The places of a set's members among all; without the gaps, sets are compared quickly. */
  private static BitSet packed(BitSet set, int[] members) {
    BitSet out = new BitSet(members.length);
    set.stream().forEach(member -> out.set(Arrays.binarySearch(members, member)));
    return out;
  }

  private static BitSet unpacked(BitSet packed, int[] members) {
    BitSet out = new BitSet();
    packed.stream().forEach(place -> out.set(members[place]));
    return out;
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
