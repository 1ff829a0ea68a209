package dev.ironsieve.core.reach;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.List;

/** Finds a connection of a region that is let through, or one that is refused. */
public final class VerdictSearch {
  private VerdictSearch() {}

  /**
   * A cover search for each rule with that effect that meets the region.
   *
   * @param letThrough whether it has to be let through
   * @return a point; or {@code Covered} if there is none, or that the budget ran out
   */
  public static Outcome find(RuleIndex index, List<Box> region, boolean letThrough, Budget budget) {
    int[] rules = index.overlapping(region, 0, index.size());
    for (int i = 0; i <= rules.length; i++) {
      int handle = i == rules.length ? RuleIndex.NONE : rules[i];
      if (index.verdict(handle).letsThrough() == letThrough) {
        List<Box> shared =
            handle == RuleIndex.NONE ? region : Box.shared(region, index.region(handle));
        Outcome outcome =
            CoverSearch.search(
                shared, point -> ReachTable.otherThan(index, handle, point), index::region, budget);
        if (!(outcome instanceof Outcome.Covered)) {
          return outcome;
        }
      }
    }
    return new Outcome.Covered(IntSet.EMPTY);
  }
}
