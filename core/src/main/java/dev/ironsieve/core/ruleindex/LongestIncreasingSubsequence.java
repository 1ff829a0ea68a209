package dev.ironsieve.core.ruleindex;

import java.util.BitSet;

/** The longest part of a sequence that rises: what stands in it kept its order. */
public final class LongestIncreasingSubsequence {
  private LongestIncreasingSubsequence() {}

  /**
   * By patience sorting (Schensted 1961, "Longest increasing and decreasing subsequences"); O(n log
   * n).
   *
   * @param sequence without equal numbers
   * @return indices into the sequence
   */
  public static BitSet longest(int[] sequence) {
    int[] tops = new int[sequence.length]; // index of the lowest end of a run of each length
    int[] previous = new int[sequence.length];
    int length = 0;
    for (int i = 0; i < sequence.length; i++) {
      int low = 0;
      int high = length;
      while (low < high) {
        int middle = (low + high) >>> 1;
        if (sequence[tops[middle]] < sequence[i]) {
          low = middle + 1;
        } else {
          high = middle;
        }
      }
      previous[i] = low == 0 ? -1 : tops[low - 1];
      tops[low] = i;
      length = Math.max(length, low + 1);
    }
    BitSet out = new BitSet(sequence.length);
    for (int i = length == 0 ? -1 : tops[length - 1]; i >= 0; i = previous[i]) {
      out.set(i);
    }
    return out;
  }
}
