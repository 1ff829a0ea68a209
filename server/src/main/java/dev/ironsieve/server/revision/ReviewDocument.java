package dev.ironsieve.server.revision;

import dev.ironsieve.server.draft.EditionEffect;
import dev.ironsieve.server.draft.FindingDocument;
import java.util.ArrayList;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * What is different between two states of a rulebase, in meaning. In a review the later one is the
 * draft and the earlier one the revision in force.
 *
 * @param revision the earlier state
 * @param version of the draft; nothing if the later state is a revision
 * @param verdicts kinds of connections that get another verdict, the largest part first; those of
 *     one cause are together
 * @param recorded how many recorded connections of the last week were looked at
 * @param complete whether these are all
 * @param notCompared why the verdicts cannot be compared; nothing if they are
 * @param checks those with another result
 * @param newFindings findings of the later state only
 * @param goneFindings findings of the earlier state only
 * @param settings of rules and rate plans that change and give no other verdict
 * @param editions sources with another edition
 * @param text the lines that differ when both are written as text, the first 2,000 of them
 * @param blockers what stops a publish; empty if the later state is a revision
 */
public record ReviewDocument(
    @Schema(required = true) int revision,
    Long version,
    @Schema(required = true) List<ChangedVerdict> verdicts,
    @Schema(required = true) int recorded,
    @Schema(required = true) boolean complete,
    String notCompared,
    @Schema(required = true) List<EditionEffect.CheckFlip> checks,
    @Schema(required = true) List<RuleFinding> newFindings,
    @Schema(required = true) List<RuleFinding> goneFindings,
    @Schema(required = true) List<ChangedSetting> settings,
    @Schema(required = true) List<ChangedEdition> editions,
    @Schema(required = true) List<TextLine> text,
    @Schema(required = true) List<Blocker> blockers) {

  /** As that of a draft, with what blocks its publish. */
  ReviewDocument of(Long draftVersion, List<Blocker> blocking) {
    return new ReviewDocument(
        revision,
        draftVersion,
        verdicts,
        recorded,
        complete,
        notCompared,
        checks,
        newFindings,
        goneFindings,
        settings,
        editions,
        text,
        blocking);
  }

  /** With other blockers too. */
  ReviewDocument blockedBy(List<Blocker> others) {
    List<Blocker> all = new ArrayList<>(blockers);
    all.addAll(others);
    return of(version, all);
  }

  /**
   * Connections that get another verdict.
   *
   * @param rule id of the changed rule that causes it; the default rule if it is left out
   * @param name of that rule
   * @param recorded how many recorded connections of the last week they are
   * @param people who opened most of these; the last may be "N more"
   */
  public record ChangedVerdict(
      @Schema(required = true) EditionEffect.VerdictEffect connections,
      String rule,
      String name,
      @Schema(required = true) int recorded,
      @Schema(required = true) List<String> people) {}

  /** A finding, with the rule that it is about. */
  public record RuleFinding(
      @Schema(required = true) String rule,
      @Schema(required = true) String name,
      @Schema(required = true) FindingDocument finding) {}

  /**
   * A setting of a rule that both states have, or a rate plan.
   *
   * @param name of the rule or the rate plan
   * @param rule id of the rule; left out for a rate plan
   * @param setting its word
   * @param before in words
   * @param after in words
   */
  public record ChangedSetting(
      @Schema(required = true) String name,
      String rule,
      @Schema(
              required = true,
              enumeration = {
                "log",
                "opening",
                "rate plan",
                "notice",
                "hold",
                "state",
                "definition"
              })
          String setting,
      @Schema(required = true) String before,
      @Schema(required = true) String after) {}

  /**
   * A source with another edition.
   *
   * @param of the word of a coordinate, or the name of a feed
   * @param before nothing if there was none
   * @param after nothing if there is none any more
   */
  public record ChangedEdition(@Schema(required = true) String of, String before, String after) {}

  /**
   * A line of a rulebase as text.
   *
   * @param sign {@code -} if it is gone, {@code +} if it is new; a space for the section above
   */
  public record TextLine(
      @Schema(
              required = true,
              enumeration = {"-", "+", " "})
          String sign,
      @Schema(required = true) String text) {}

  /**
   * A reason not to publish.
   *
   * @param text a sentence
   * @param rule id of the rule that it is about, if it is about one
   */
  public record Blocker(
      @Schema(
              required = true,
              enumeration = {"check", "lock-out", "finding", "below"})
          String kind,
      @Schema(required = true) String text,
      String rule) {}
}
