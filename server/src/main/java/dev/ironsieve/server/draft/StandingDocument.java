package dev.ironsieve.server.draft;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.analysis.Reach;
import dev.ironsieve.core.analysis.Standing;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The standing and the findings of a rule.
 *
 * @param share of its match that gets to it, 0 to 1
 * @param uncertainty of the share; 0 where it is exact
 * @param witness a connection that it decides; with {@code decides}
 * @param findings all that was found, in the order of their kinds
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record StandingDocument(
    @Schema(
            required = true,
            enumeration = {"decides", "covered", "empty", "passed-over", "undecided"})
        String kind,
    @Schema(required = true) Double share,
    @Schema(required = true) Double uncertainty,
    String witness,
    @Schema(required = true) List<FindingDocument> findings) {

  public static StandingDocument of(String rule, LiveAnalysis analysis) {
    Standing standing = analysis.standing(rule);
    Reach reach = analysis.reach(rule);
    return new StandingDocument(
        switch (standing) {
          case Standing.Decides s -> "decides";
          case Standing.Covered s -> "covered";
          case Standing.Empty s -> "empty";
          case Standing.PassedOver s -> "passed-over";
          case Standing.Undecided s -> "undecided";
        },
        reach.share(),
        reach.uncertainty(),
        standing instanceof Standing.Decides s
            ? FindingDocument.witness(rule, s.witness(), analysis)
            : null,
        analysis.findings(rule).stream()
            .map(finding -> FindingDocument.of(finding, analysis))
            .toList());
  }
}
