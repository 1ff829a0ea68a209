package dev.ironsieve.core.analysis;

import dev.ironsieve.core.cover.Budget;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;

/**
 * The smallest set of numbers that has a member in common with each of some sets, and of several
 * such sets the first in lexicographic order. Sets that have nothing in common with each other need
 * a member each, so a choice is given up as soon as more of those are left than members that may
 * still be chosen.
 */
final class HittingSet {
  /** A comparison of two boxes looks at about so many words. */
  private static final int WORDS_OF_A_STEP = 16;

  private final long[][] sets; // smallest first
  private final BitSet all; // numbers of any set
  private final int words;
  private final Budget budget;
  private final long steps; // to compare all sets once
  private BitSet best;

  private HittingSet(List<BitSet> sets, Budget budget) {
    BitSet[] smallestFirst = sets.toArray(BitSet[]::new);
    Arrays.sort(smallestFirst, Comparator.comparingInt(BitSet::cardinality));
    all = new BitSet();
    sets.forEach(all::or);
    words = all.length() / Long.SIZE + 1;
    this.sets = new long[smallestFirst.length][];
    for (int i = 0; i < smallestFirst.length; i++) {
      this.sets[i] = Arrays.copyOf(smallestFirst[i].toLongArray(), words);
    }
    steps = sets.size() * (1L + words / WORDS_OF_A_STEP);
    this.budget = budget;
  }

  /**
   * The first, in lexicographic order, of the hitting sets with the fewest members; {@code null} if
   * the smallest has more than {@code most} members or the budget ran out. Exponential in {@code
   * most}.
   *
   * @param sets of small numbers
   * @param least no hitting set has fewer members
   */
  static BitSet firstSmallest(List<BitSet> sets, int least, int most, Budget budget) {
    HittingSet search = new HittingSet(sets, budget);
    for (int size = least; size <= most; size++) {
      if (!search.extend(new long[search.words], size, 0)) {
        return null;
      }
      if (search.best != null) {
        return search.first(size);
      }
    }
    return null;
  }

  /**
   * The first hitting set of a size, of which one is known and none is smaller: fixes its members
   * one by one, each the lowest with which a hitting set is left.
   */
  private BitSet first(int size) {
    long[] chosen = new long[words];
    int from = 0;
    for (int left = size - 1; left >= 0; left--) {
      BitSet known = best;
      int last = known.nextSetBit(from);
      for (int member = all.nextSetBit(from); member < last; member = all.nextSetBit(member + 1)) {
        best = null;
        chosen[member / Long.SIZE] |= 1L << member;
        if (!extend(chosen, left, member + 1)) {
          return null;
        }
        if (best != null) {
          last = member;
          break;
        }
        chosen[member / Long.SIZE] &= ~(1L << member);
      }
      best = best == null ? known : best;
      chosen[last / Long.SIZE] |= 1L << last;
      from = last + 1;
    }
    return best;
  }

  /**
   * Looks for a hitting set that has all that is chosen and up to {@code left} others.
   *
   * @param from the lowest number that may be chosen
   * @return false if the budget ran out
   */
  private boolean extend(long[] chosen, int left, int from) {
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
      for (long members = since(unhit, word, from);
          members != 0 && best == null;
          members &= members - 1) {
        long member = Long.lowestOneBit(members);
        chosen[word] |= member;
        if (!extend(chosen, left - 1, from)) {
          return false;
        }
        chosen[word] &= ~member;
      }
    }
    return true;
  }

  /** The members in a word that are not below a number. */
  private static long since(long[] set, int word, int from) {
    int below = from - word * Long.SIZE;
    return below <= 0 ? set[word] : below >= Long.SIZE ? 0 : set[word] & -1L << below;
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
