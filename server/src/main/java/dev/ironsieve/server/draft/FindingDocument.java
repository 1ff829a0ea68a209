package dev.ironsieve.server.draft;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.ironsieve.core.analysis.Finding;
import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.analysis.Minimality;
import dev.ironsieve.core.matcher.WitnessShortener;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.text.ConnectionLine;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A finding about a rule.
 *
 * @param causes ids of the rules that cause it
 * @param smallest whether fewer rules provably do not cause it
 * @param minimal false where the work limit was reached before it was known whether each of the
 *     causes is needed; else left out
 * @param witness a connection that proves it, as a line for the probe
 * @param decidedBy id of the rule that decides the witness; with {@code redundant-below} the rule
 *     that would decide it otherwise; none for the default rule
 * @param detail what was not settled, with {@code undecided}; what needs what, with {@code
 *     unmet-need}; what does not show, with {@code unseen-feature}
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record FindingDocument(
    @Schema(
            required = true,
            enumeration = {
              "empty",
              "shadowed",
              "redundant-above",
              "redundant-below",
              "correlated",
              "generalised",
              "too-broad",
              "unmet-need",
              "unseen-feature",
              "mergeable",
              "expired",
              "ends-soon",
              "undecided"
            })
        String kind,
    @Schema(
            required = true,
            enumeration = {"note", "warning", "error"})
        String severity,
    @Schema(required = true) List<String> causes,
    Boolean smallest,
    Boolean minimal,
    String witness,
    String decidedBy,
    String detail) {

  /** The severity, which is named by its word. */
  public static Finding.Severity severity(FindingDocument finding) {
    return Finding.Severity.valueOf(finding.severity().toUpperCase(Locale.ROOT));
  }

  public static FindingDocument of(Finding finding, LiveAnalysis analysis) {
    return new FindingDocument(
        finding.kind().word(),
        finding.kind().severity().word(),
        finding.causes(),
        finding.causes().size() > 1 ? finding.smallest() : null,
        !finding.causes().isEmpty() && finding.minimality() == Minimality.UNPROVEN ? false : null,
        finding.witness() == null ? null : witness(finding, analysis),
        finding.decidedBy(),
        finding.words().isEmpty() ? null : finding.words());
  }

  private static String witness(Finding finding, LiveAnalysis analysis) {
    // Who it is matters to a need, whether the rule asks or not.
    return finding.kind() == Finding.Kind.UNMET_NEED
        ? ConnectionLine.format(
            WitnessShortener.deciding(
                finding.witness(),
                Set.of(Coordinate.PERSON, Coordinate.DEVICE, Coordinate.APPLICATION),
                analysis.index()))
        : witness(finding.rule(), finding.witness(), analysis);
  }

  /** A connection that proves something of a rule, as short as it can be said. */
  static String witness(String rule, Connection witness, LiveAnalysis analysis) {
    RuleIndex index = analysis.index();
    return ConnectionLine.format(WitnessShortener.of(witness, index.handle(rule), index));
  }
}
