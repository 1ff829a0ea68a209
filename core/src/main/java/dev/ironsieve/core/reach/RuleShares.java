package dev.ironsieve.core.reach;

import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Box;
import java.util.List;
import java.util.SplittableRandom;

/**
 * The share of all connections that each rule decides, where each kind of connection that the rules
 * tell apart counts alike: estimated from connections picked evenly, always the same ones for the
 * same rules.
 *
 * @param samples how many were picked
 * @param decided of these, how many each rule decides, by its position; the default rule is last
 */
public record RuleShares(int samples, int[] decided) {
  /** Estimates the shares; O(samples) look-ups. */
  public static RuleShares of(RuleIndex index, int samples) {
    List<Box> everything = index.space().everything();
    SplittableRandom random = new SplittableRandom(7);
    int[] decided = new int[index.size() + 1];
    for (int i = 0; i < samples; i++) {
      int[] point = index.space().pick(everything.get(i % everything.size()), random);
      int first = index.first(point);
      decided[first == RuleIndex.NONE ? index.size() : index.position(first)]++;
    }
    return new RuleShares(samples, decided);
  }
}
