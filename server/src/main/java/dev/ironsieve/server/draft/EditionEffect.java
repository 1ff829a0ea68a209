package dev.ironsieve.server.draft;

import dev.ironsieve.core.catalogue.Catalogue;
import dev.ironsieve.core.catalogue.EditionChange;
import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.text.ConnectionLine;
import java.util.List;
import java.util.Map;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * What a draft would become with another edition of the catalogue.
 *
 * @param edition the edition that it would have
 * @param added names of applications that are new to it
 * @param removed names of those that it would lose
 * @param changed what became otherwise of each that stayed, in words, by its name
 * @param rules the rules whose match changes
 * @param verdicts kinds of connections that get another verdict, the most first; none is worked out
 *     as long as a rule says what the edition does not know
 * @param complete whether these are all verdicts that change
 */
public record EditionEffect(
    @Schema(required = true) String edition,
    @Schema(required = true) List<String> added,
    @Schema(required = true) List<String> removed,
    @Schema(required = true) Map<String, List<String>> changed,
    @Schema(required = true) List<RuleEffect> rules,
    @Schema(required = true) List<VerdictEffect> verdicts,
    @Schema(required = true) boolean complete) {

  /**
   * @param gained uses that the rule would ask for
   * @param lost uses that it would no longer ask for
   * @param unknown what it says and the edition does not know
   */
  public record RuleEffect(
      @Schema(required = true) String id,
      @Schema(required = true) String name,
      @Schema(required = true) List<String> gained,
      @Schema(required = true) List<String> lost,
      @Schema(required = true) List<String> unknown) {}

  /**
   * @param what what the connections are, in words, an axis each
   * @param beforeRule id of the rule that decides the witness now; nothing for the closing rule
   * @param witness one of them
   */
  public record VerdictEffect(
      @Schema(required = true) List<String> what,
      @Schema(required = true) String before,
      String beforeRule,
      @Schema(required = true) String after,
      String afterRule,
      @Schema(required = true) String witness) {}

  /** The effect on a rulebase that has another edition, or none. */
  static EditionEffect of(Rulebase rulebase, Catalogue before, Catalogue after) {
    EditionChange change = EditionChange.between(before, after);
    List<RuleEffect> rules =
        EditionChange.ofRules(rulebase.rules(), before, after).stream()
            .map(
                effect ->
                    new RuleEffect(
                        effect.rule().id(),
                        effect.rule().name(),
                        effect.gained(),
                        effect.lost(),
                        effect.unknown()))
            .toList();
    boolean fits = rules.stream().allMatch(effect -> effect.unknown().isEmpty());
    Difference difference = fits ? difference(rulebase, after.vocabulary()) : null;
    return new EditionEffect(
        after.edition(),
        change.added(),
        change.removed(),
        change.changed(),
        rules,
        difference == null
            ? List.of()
            : difference.parts().stream().map(part -> verdict(part, difference)).toList(),
        difference != null && difference.complete());
  }

  private static Difference difference(Rulebase rulebase, Vocabulary next) {
    Vocabulary old = rulebase.vocabulary(Coordinate.APPLICATION).orElseThrow();
    List<String> values = next.valuesWith(old);
    return Differences.between(
        new Edit.PutVocabulary(old.over(values)).apply(rulebase),
        new Edit.PutVocabulary(next.over(values)).apply(rulebase),
        Aspect.VERDICT);
  }

  private static VerdictEffect verdict(Difference.Part part, Difference difference) {
    return new VerdictEffect(
        difference.words(part),
        word(part.before()),
        part.before() == null ? null : part.before().id(),
        word(part.after()),
        part.after() == null ? null : part.after().id(),
        ConnectionLine.format(part.witness()));
  }

  private static String word(Rule rule) {
    return rule == null ? "drop" : rule.verdict().word();
  }
}
