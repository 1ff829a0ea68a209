package dev.ironsieve.core.matcher;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Rule;
import java.util.List;
import java.util.Set;

/**
 * The trace of a connection: every rule that it passed, with the criteria that did not hold, and
 * the rule that decides.
 *
 * @param passed the rules that did not decide, from the first to the last before the decision
 * @param decided the rule that decides, or null for the default rule, which drops and logs all
 */
public record Trace(List<Passed> passed, Rule decided) {

  /** One thing that a rule asks of a connection. */
  public enum CriterionName {
    FROM_ZONE,
    FROM_ADDRESS,
    TO_ZONE,
    TO_ADDRESS,
    SERVICE,
    PERSON,
    DEVICE,
    SITE,
    APPLICATION,
    FILE_KIND,
    TIME;

    /** The part that asks of a coordinate. */
    static CriterionName of(Coordinate coordinate) {
      return valueOf(coordinate.name());
    }
  }

  /**
   * A rule that let the connection by.
   *
   * @param turnedAwayBy the criteria that do not hold; empty if the rule is disabled
   */
  public record Passed(Rule rule, Set<CriterionName> turnedAwayBy) {}
}
