package dev.ironsieve.server.draft;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.ironsieve.core.matcher.WitnessShortener;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.reach.ReachTable;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.core.text.ReachLine;
import java.util.List;
import java.util.Map;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The answer to a reach question.
 *
 * @param question its clauses
 * @param lines every connection of the question is in one of them, in the order of the rules
 * @param complete whether these are all; if not, the work limit was reached
 */
public record ReachDocument(
    @Schema(required = true) String question,
    @Schema(required = true) List<ReachLineDocument> lines,
    @Schema(required = true) boolean complete) {
  /**
   * A part of the question that one rule decides.
   *
   * @param rule its id; left out for the default rule
   * @param parts the values on each axis that the line narrows within the question
   * @param except ids of rules above that decide some of it
   * @param witness one connection that the rule decides
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record ReachLineDocument(
      @Schema(
              required = true,
              enumeration = {"allow", "drop", "reject", "caution"})
          String verdict,
      String rule,
      @Schema(required = true) Map<String, String> parts,
      @Schema(required = true) List<String> except,
      @Schema(required = true) String witness) {}

  static ReachDocument of(Rule pattern, ReachTable table, RuleIndex index) {
    return new ReachDocument(
        ReachLine.format(pattern),
        table.lines().stream().map(line -> of(line, pattern, table, index)).toList(),
        table.complete());
  }

  private static ReachLineDocument of(
      ReachTable.Line line, Rule pattern, ReachTable table, RuleIndex index) {
    return new ReachLineDocument(
        line.verdict().word(),
        line.rule() == null ? null : line.rule().id(),
        table.words(line, index.space()),
        line.except().stream().map(Rule::id).toList(),
        ConnectionLine.format(
            WitnessShortener.deciding(
                index.space().connection(line.point()), pattern.terms().keySet(), index)));
  }
}
