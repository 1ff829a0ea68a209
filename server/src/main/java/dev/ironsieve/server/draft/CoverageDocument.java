package dev.ironsieve.server.draft;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.ironsieve.core.checks.Coverage;
import dev.ironsieve.core.checks.Mutant;
import dev.ironsieve.core.matcher.WitnessShortener;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.text.ConnectionLine;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * Which small mistakes in the rules the checks would notice.
 *
 * @param noticed the number of mistakes that make a check fail
 * @param missed the number of mistakes that change a verdict without any check noticing
 * @param harmless the number of mistakes that change no verdict
 * @param undecided the number of mistakes for which the analysis limit was reached
 * @param examples the first of those that are missed
 */
public record CoverageDocument(
    @Schema(required = true) int noticed,
    @Schema(required = true) int missed,
    @Schema(required = true) int harmless,
    @Schema(required = true) int undecided,
    @Schema(required = true) List<MissedMistake> examples) {
  /** Most examples. */
  private static final int MOST = 500;

  /**
   * A mistake that no check would notice, and the connection that would show it.
   *
   * @param rule id of the rule that it is made in
   * @param mistake another verdict, disabled, swapped with the next rule, or a criterion lost
   * @param criterion the criterion that is lost, as a word
   * @param next id of the rule that it is swapped with
   * @param line a connection that gets another verdict by the mistake
   * @param verdict that it gets without it
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record MissedMistake(
      @Schema(required = true) String rule,
      @Schema(
              required = true,
              enumeration = {"verdict", "disabled", "swapped", "criterion"})
          String mistake,
      String criterion,
      String next,
      @Schema(required = true) String line,
      @Schema(
              required = true,
              enumeration = {"allow", "drop", "reject", "caution"})
          String verdict) {}

  static CoverageDocument of(Coverage coverage, RuleIndex index) {
    return new CoverageDocument(
        coverage.noticed().size(),
        coverage.missed().size(),
        coverage.harmless().size(),
        coverage.undecided().size(),
        coverage.missed().stream().limit(MOST).map(missed -> of(missed, index)).toList());
  }

  private static MissedMistake of(Coverage.Missed missed, RuleIndex index) {
    Connection witness = missed.witness();
    String verdict = index.verdict(index.first(index.space().point(witness))).word();
    String line = shortest(witness, index);
    return switch (missed.mutant()) {
      case Mutant.OtherVerdict(String rule) ->
          new MissedMistake(rule, "verdict", null, null, line, verdict);
      case Mutant.Disabled(String rule) ->
          new MissedMistake(rule, "disabled", null, null, line, verdict);
      case Mutant.Swapped(String rule, String next) ->
          new MissedMistake(rule, "swapped", null, next, line, verdict);
      case Mutant.Widened(String rule, Mutant.DroppedCriterion part) ->
          new MissedMistake(
              rule,
              "criterion",
              part.name().toLowerCase(Locale.ROOT).replace('_', ' '),
              null,
              line,
              verdict);
    };
  }

  /**
   * The connection without what the decision on it does not depend on: a check of the rest still
   * notices the mistake, since the whole connection is one of those that it stands for.
   */
  static String shortest(Connection witness, RuleIndex index) {
    return ConnectionLine.format(WitnessShortener.deciding(witness, Set.of(), index));
  }
}
