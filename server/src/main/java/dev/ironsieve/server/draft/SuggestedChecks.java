package dev.ironsieve.server.draft;

import dev.ironsieve.core.checks.TestPoints;
import dev.ironsieve.core.ruleindex.RuleIndex;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * Checks that together notice every single small mistake in some rules.
 *
 * @param checks the connections, each with the verdict that it gets now
 * @param undecided the number of mistakes for which the analysis limit was reached
 */
public record SuggestedChecks(
    @Schema(required = true) List<SuggestedCheck> checks, @Schema(required = true) int undecided) {
  /** A connection with its verdict. */
  public record SuggestedCheck(
      @Schema(required = true) String line,
      @Schema(
              required = true,
              enumeration = {"allow", "drop", "reject", "caution"})
          String verdict) {}

  static SuggestedChecks of(TestPoints points, RuleIndex index) {
    return new SuggestedChecks(
        points.checks().stream()
            .map(
                check ->
                    new SuggestedCheck(
                        CoverageDocument.shortest(check.connection(), index),
                        check.expected().word()))
            .toList(),
        points.undecided().size());
  }
}
