package dev.ironsieve.server.draft;

import dev.ironsieve.core.checks.CheckResult;
import dev.ironsieve.core.text.ConnectionLine;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The state of one saved check.
 *
 * @param verdict that the connection gets; nothing if it cannot be tried
 * @param rule id of the rule that decides; nothing for the default rule
 * @param certain whether every connection that agrees with it gets the verdict
 * @param counterexample a connection that agrees with it and does not come out as it must, where
 *     something is unsaid
 * @param refused why the connection cannot be tried; nothing if it can
 * @param lockedOut what refuses a protected connection while the directory is away
 */
public record CheckState(
    @Schema(required = true) String name,
    @Schema(required = true) boolean holds,
    String verdict,
    String rule,
    @Schema(required = true) boolean certain,
    String counterexample,
    String refused,
    LockedOut lockedOut) {
  /**
   * What refuses a protected connection.
   *
   * @param rule its id; nothing for the default rule
   */
  public record LockedOut(@Schema(required = true) String verdict, String rule) {
    static LockedOut of(CheckResult.LockedOut found) {
      return found == null ? null : new LockedOut(found.verdict().word(), found.rule());
    }
  }

  static CheckState of(CheckResult result) {
    return new CheckState(
        result.check().name(),
        result.holds(),
        result.verdict() == null ? null : result.verdict().word(),
        result.rule(),
        result.certain(),
        result.counterexample() == null ? null : ConnectionLine.format(result.counterexample()),
        result.refused(),
        LockedOut.of(result.lockedOut()));
  }
}
