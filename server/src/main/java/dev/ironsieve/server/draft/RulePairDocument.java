package dev.ironsieve.server.draft;

import dev.ironsieve.core.matcher.WitnessShortener;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.reach.RulePair;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.text.ConnectionLine;
import java.util.List;
import java.util.Set;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * Two rules side by side.
 *
 * @param upper id of the one that stands above the other
 * @param lower id of the other
 * @param shared what both match
 * @param upperAlone what only the upper one matches
 * @param lowerAlone what only the lower one matches
 * @param complete whether these are all parts
 */
public record RulePairDocument(
    @Schema(required = true) String upper,
    @Schema(required = true) String lower,
    @Schema(required = true) List<MatchPart> shared,
    @Schema(required = true) List<MatchPart> upperAlone,
    @Schema(required = true) List<MatchPart> lowerAlone,
    @Schema(required = true) boolean complete) {
  /** Most parts of one list. */
  private static final int MOST = 20;

  /**
   * Connections that a rule matches.
   *
   * @param what the part on each axis that it narrows, in words
   * @param witness one of them
   * @param verdict on that one
   * @param rule id of the rule that decides that one; left out for the default rule
   */
  public record MatchPart(
      @Schema(required = true) List<String> what,
      @Schema(required = true) String witness,
      @Schema(
              required = true,
              enumeration = {"allow", "drop", "reject", "caution"})
          String verdict,
      String rule) {}

  static RulePairDocument of(RuleIndex index, int one, int other) {
    boolean inOrder = index.position(one) < index.position(other);
    int upper = inOrder ? one : other;
    int lower = inOrder ? other : one;
    RulePair pair = RulePair.of(index, upper, lower);
    boolean all =
        pair.complete()
            && pair.shared().size() <= MOST
            && pair.firstAlone().size() <= MOST
            && pair.secondAlone().size() <= MOST;
    return new RulePairDocument(
        index.rule(upper).id(),
        index.rule(lower).id(),
        parts(pair.shared(), index),
        parts(pair.firstAlone(), index),
        parts(pair.secondAlone(), index),
        all);
  }

  private static List<MatchPart> parts(List<Box> boxes, RuleIndex index) {
    return boxes.stream().limit(MOST).map(box -> part(box, index)).toList();
  }

  private static MatchPart part(Box box, RuleIndex index) {
    int[] point = box.lowest();
    int decides = index.first(point);
    Rule rule = decides == RuleIndex.NONE ? null : index.rule(decides);
    return new MatchPart(
        index.space().words(box),
        ConnectionLine.format(
            WitnessShortener.deciding(index.space().connection(point), Set.of(), index)),
        DefaultRule.verdict(rule).word(),
        rule == null ? null : rule.id());
  }
}
