package dev.ironsieve.server.draft;

import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.analysis.Placement;
import dev.ironsieve.core.ruleindex.RuleIndex;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The effect of moving a rule to every other place. Places are counted among the other rules: at
 * place 0 it stands above all of them, at place n below the n-th.
 *
 * @param version of the draft
 * @param place where the rule stands
 * @param places how many there are
 * @param decidesAll the nearest place, at or above that of the rule, where no rule above it matches
 *     any of its connections
 * @param blocking the rules that it cannot pass without changing a verdict, in their order
 * @param complete whether these are all; if not, the budget of work ran out
 */
public record PlacementDocument(
    @Schema(required = true) long version,
    @Schema(required = true) int place,
    @Schema(required = true) int places,
    @Schema(required = true) int decidesAll,
    @Schema(required = true) List<Blocking> blocking,
    @Schema(required = true) boolean complete) {

  /**
   * A rule that cannot be passed.
   *
   * @param position of it among the other rules, from 0
   * @param rule its id
   * @param verdict its verdict
   * @param witness a connection that gets another verdict when the rule passes it
   */
  public record Blocking(
      @Schema(required = true) int position,
      @Schema(required = true) String rule,
      @Schema(
              required = true,
              enumeration = {"allow", "drop", "reject", "caution"})
          String verdict,
      @Schema(required = true) String witness) {}

  /**
   * @param rule the id of one of the analysed rules
   */
  static PlacementDocument of(String rule, long version, LiveAnalysis analysis) {
    Placement placement = analysis.placement(rule);
    RuleIndex index = analysis.index();
    int handle = index.handle(rule);
    int[] above = index.overlapping(index.region(handle), 0, index.position(handle));
    return new PlacementDocument(
        version,
        placement.place(),
        placement.places(),
        above.length == 0 ? placement.place() : index.position(above[0]),
        placement.blockingRules().stream()
            .map(
                one ->
                    new Blocking(
                        one.position(),
                        one.rule(),
                        one.verdict().word(),
                        FindingDocument.witness(rule, one.witness(), analysis)))
            .toList(),
        placement.complete());
  }
}
