package dev.ironsieve.core.checks;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.reach.ReachTable;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Completions;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.core.text.ReachLine;
import java.util.ArrayList;
import java.util.List;

/** The connections that saved checks are about: a mistake that changes one of them fails one. */
public final class CheckRegions {
  private CheckRegions() {}

  /**
   * The connections of each check that passes, as boxes: all completions of its connection, or all
   * of its set. A check that the index cannot tell apart is left out.
   */
  public static List<List<Box>> of(Rulebase rulebase, RuleIndex index, List<CheckResult> results) {
    List<List<Box>> out = new ArrayList<>();
    for (CheckResult result : results) {
      if (result.holds()) {
        try {
          out.add(regionOf(result, rulebase, index));
        } catch (InvalidText | IllegalStateException e) {
          // It names something that is gone, or cannot be told apart: it notices nothing.
        }
      }
    }
    return out;
  }

  private static List<Box> regionOf(CheckResult result, Rulebase rulebase, RuleIndex index) {
    if (result.check().isSet()) {
      return ReachTable.regionOf(index, ReachLine.parse(result.check().question(), rulebase));
    }
    Connection connection =
        ConnectionLine.parse(result.check().connection(), rulebase, index.resolution());
    return Completions.of(connection, index.space(), index.resolution()).boxes();
  }
}
