package dev.ironsieve.core.difference;

import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Rule;
import java.util.function.Function;

/**
 * The aspect in which two rulebases are compared: verdicts, rules, logging and others. A rule that
 * is not there is the default rule.
 */
public enum Aspect {
  /** The verdict; the default rule drops. */
  VERDICT(DefaultRule::verdict),
  /** Which rule decides, by its id. */
  RULE(rule -> rule == null ? "" : rule.id()),
  /** When it is logged; the default rule logs at the start. */
  LOGGING(rule -> DefaultRule.unless(rule).logging()),
  /** Whether it is decrypted for inspection; the default rule leaves it sealed. */
  OPENING(rule -> DefaultRule.unless(rule).opening()),
  /** Which rate plan it gets, by its name. */
  RATE_PLAN(rule -> rule == null || rule.ratePlan() == null ? "" : Names.key(rule.ratePlan()));

  private final Function<Rule, Object> says;

  Aspect(Function<Rule, Object> says) {
    this.says = says;
  }

  /** The value of a rule, or null for the default rule. */
  Object of(Rule rule) {
    return says.apply(rule);
  }
}
