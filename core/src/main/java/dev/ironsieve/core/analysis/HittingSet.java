package dev.ironsieve.core.analysis;

import dev.ironsieve.core.cover.Budget;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;

/**
 * The smallest set of numbers that has a member in common with each of some sets. Sets that have
 * nothing in common with each other need a member each, so a choice is given up as soon as more of
 * those are left than members that may still be chosen.
 */
final class HittingSet {
  /** A comparison of two boxes looks at about so many words. */
  private static final int WORDS_OF_A_STEP = 16;

  private final long[][] sets; // smallest first
  private final int words;
  private final Budget budget;
  private final long steps; // to compare all sets once
  private BitSet best;

  private HittingSet(List<BitSet> sets, Budget budget) {
    BitSet[] smallestFirst = sets.toArray(BitSet[]::new);
    Arrays.sort(smallestFirst, Comparator.comparingInt(BitSet::cardinality));
    int length = 0;
    for (BitSet set : smallestFirst) {
      length = Math.max(length, set.length());
    }
    words = length / Long.SIZE + 1;
    this.sets = new long[smallestFirst.length][];
    for (int i = 0; i < smallestFirst.length; i++) {
      this.sets[i] = Arrays.copyOf(smallestFirst[i].toLongArray(), words);
    }
    steps = sets.size() * (1L + words / WORDS_OF_A_STEP);
    this.budget = budget;
  }

  /**
   * A hitting set with fewer than {@code below} members that is smallest of all; {@code null} if
   * there is none that small or the budget ran out. Exponential in {@code below}.
   *
   * @param sets of small numbers
   * @param least no hitting set has fewer members
   */
  static BitSet smallest(List<BitSet> sets, int least, int below, Budget budget) {
    HittingSet search = new HittingSet(sets, budget);
    for (int size = least; size < below && search.best == null; size++) {
      if (!search.extend(new long[search.words], size)) {
        return null;
      }
    }
    return search.best;
  }

  /** False if the budget ran out. */
  private boolean extend(long[] chosen, int left) {
    if (!budget.take(steps)) {
      return false;
    }
    long[] unhit = null; // the smallest
    int apart = 0; // sets that are not hit and have nothing in common
    long[] theirs = new long[words]; // members
    for (long[] set : sets) {
      if (!meets(set, chosen)) {
        unhit = unhit == null ? set : unhit;
        if (!meets(set, theirs)) {
          apart++;
          for (int word = 0; word < words; word++) {
            theirs[word] |= set[word];
          }
        }
      }
    }
    if (unhit == null) {
      best = BitSet.valueOf(chosen);
    }
    if (unhit == null || apart > left) {
      return true;
    }
    for (int word = 0; word < words; word++) {
      for (long members = unhit[word]; members != 0 && best == null; members &= members - 1) {
        long member = Long.lowestOneBit(members);
        chosen[word] |= member;
        if (!extend(chosen, left - 1)) {
          return false;
        }
        chosen[word] &= ~member;
      }
    }
    return true;
  }

  private boolean meets(long[] set, long[] other) {
    for (int word = 0; word < words; word++) {
      if ((set[word] & other[word]) != 0) {
        return true;
      }
    }
    return false;
  }
}
