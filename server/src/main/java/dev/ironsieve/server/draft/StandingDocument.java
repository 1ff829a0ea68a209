package dev.ironsieve.server.draft;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.ironsieve.core.analysis.Standing;
import dev.ironsieve.core.text.ConnectionLine;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * Where a rule stands in the order.
 *
 * @param share of its match that gets to it, 0 to 1; with {@code decides}
 * @param uncertainty of the share; 0 where it is exact
 * @param witness a connection that proves it, as a line for the probe
 * @param causes ids of the rules that together take all of its match
 * @param smallest whether fewer rules provably cannot do that
 * @param decidedBy id of the rule that decides the witness instead
 * @param question what was not settled; with {@code undecided}
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record StandingDocument(
    @Schema(
            required = true,
            enumeration = {
              "decides",
              "shadowed",
              "redundant-above",
              "empty",
              "passed-over",
              "undecided"
            })
        String kind,
    Double share,
    Double uncertainty,
    String witness,
    List<String> causes,
    Boolean smallest,
    String decidedBy,
    String question) {

  static StandingDocument of(Standing standing) {
    return switch (standing) {
      case Standing.Decides s ->
          new StandingDocument(
              "decides",
              s.reach().share(),
              s.reach().uncertainty(),
              ConnectionLine.format(s.witness()),
              null,
              null,
              null,
              null);
      case Standing.Covered s ->
          new StandingDocument(
              s.kind() == Standing.Kind.SHADOWED ? "shadowed" : "redundant-above",
              null,
              null,
              ConnectionLine.format(s.witness()),
              s.causes(),
              s.smallest(),
              s.decidedBy(),
              null);
      case Standing.Empty s -> plain("empty", null);
      case Standing.PassedOver s -> plain("passed-over", null);
      case Standing.Undecided s -> plain("undecided", s.question());
    };
  }

  private static StandingDocument plain(String kind, String question) {
    return new StandingDocument(kind, null, null, null, null, null, null, question);
  }
}
