package dev.ironsieve.core.checks;

import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.model.SavedCheck;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.text.ConnectionLine;
import java.util.ArrayList;
import java.util.List;

/**
 * What becomes of one saved check.
 *
 * @param verdict that the connection gets; null if it says what the rulebase no longer knows
 * @param rule id of the rule that decides; null for the closing rule
 * @param refused why the connection cannot be tried; null if it can
 */
public record CheckResult(SavedCheck check, Verdict verdict, String rule, String refused) {
  /** Whether it comes out as it must; not if it cannot be tried. */
  public boolean holds() {
    return verdict == check.expected() && (check.rule() == null || check.rule().equals(rule));
  }

  /**
   * Tries every check of a rulebase; O(checks · names that a line can say), and a lookup each.
   *
   * @param order of the rulebase
   */
  public static List<CheckResult> of(Rulebase rulebase, Order order) {
    Matcher matcher = new Matcher(order);
    List<CheckResult> out = new ArrayList<>();
    for (SavedCheck check : rulebase.checks()) {
      try {
        Connection connection =
            ConnectionLine.parse(check.connection(), rulebase, order.resolution());
        Rule rule = matcher.decide(connection).orElse(null);
        out.add(
            new CheckResult(
                check,
                rule == null ? Verdict.DROP : rule.verdict(),
                rule == null ? null : rule.id(),
                null));
      } catch (InvalidText e) {
        out.add(new CheckResult(check, null, null, e.getMessage()));
      }
    }
    return out;
  }

  /**
   * A check that comes out otherwise.
   *
   * @param after of the same check, in another rulebase
   */
  public record Flip(CheckResult before, CheckResult after) {}

  /**
   * The checks that hold in one of two rulebases only.
   *
   * @param difference of the two, of which only the orders are asked
   */
  public static List<Flip> flips(Rulebase before, Rulebase after, Difference difference) {
    List<CheckResult> old = of(before, difference.before());
    List<CheckResult> now = of(after.withChecks(before.checks()), difference.after());
    List<Flip> out = new ArrayList<>();
    for (int i = 0; i < old.size(); i++) {
      if (old.get(i).holds() != now.get(i).holds()) {
        out.add(new Flip(old.get(i), now.get(i)));
      }
    }
    return out;
  }
}
