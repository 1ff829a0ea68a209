package dev.ironsieve.core.checks;

import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.reach.ReachTable;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.core.text.ReachLine;
import java.util.ArrayList;
import java.util.List;

/**
 * Single connections that saved checks try. A check that leaves something unsaid, or is about a
 * set, gives one for each rule that decides some of its connections: a mistake that changes one of
 * them makes the check fail.
 */
public final class CheckPoints {
  private static final long STEPS = 50_000; // for one check

  private CheckPoints() {}

  /** The connections of the checks that pass, each with the verdict that it gets. */
  public static List<Check> of(Rulebase rulebase, RuleIndex index, List<CheckResult> results) {
    Matcher matcher = new Matcher(index);
    List<Check> out = new ArrayList<>();
    for (CheckResult result : results) {
      if (result.holds()) {
        add(result, rulebase, index, matcher, out);
      }
    }
    return out;
  }

  private static void add(
      CheckResult result, Rulebase rulebase, RuleIndex index, Matcher matcher, List<Check> out) {
    try {
      if (result.check().isSet()) {
        ReachTable.ask(index, ReachLine.parse(result.check().question(), rulebase), STEPS)
            .lines()
            .forEach(
                line -> out.add(new Check(index.space().connection(line.point()), line.verdict())));
        return;
      }
      Connection connection =
          ConnectionLine.parse(result.check().connection(), rulebase, index.resolution());
      if (index.space().point(connection) != null) {
        out.add(new Check(connection, result.verdict()));
        return;
      }
      matcher
          .possible(connection, STEPS)
          .decisions()
          .forEach(decision -> out.add(new Check(decision.witness(), decision.verdict())));
    } catch (InvalidText | IllegalStateException e) {
      // It names something that is gone, or cannot be told apart: it notices nothing.
    }
  }
}
