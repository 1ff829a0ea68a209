package dev.ironsieve.server.draft;

import dev.ironsieve.core.reach.ReachAnswer;
import dev.ironsieve.core.text.ConnectionLine;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The rules that can ever decide some connections, in their order, the default rule last.
 *
 * @param complete whether these are all; if not, the budget of work ran out
 */
public record DecidingRules(
    @Schema(required = true) List<DecidingRule> rules, @Schema(required = true) boolean complete) {

  /**
   * One of these rules.
   *
   * @param id nothing for the default rule
   * @param ends the ends of the connections for which it decides some of them, in words
   * @param witness one such connection
   */
  public record DecidingRule(
      @Schema(required = true) String verdict,
      String id,
      @Schema(required = true) String ends,
      @Schema(required = true) String witness) {}

  static DecidingRules of(ReachAnswer answer) {
    return new DecidingRules(
        answer.deciders().stream()
            .map(
                decider ->
                    new DecidingRule(
                        decider.verdict().word(),
                        decider.rule() == null ? null : decider.rule().id(),
                        decider.values(),
                        ConnectionLine.format(decider.witness())))
            .toList(),
        answer.complete());
  }
}
