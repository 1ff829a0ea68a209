package dev.ironsieve.server.draft;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.ironsieve.formats.document.RuleDocument;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * Rules, as text or read from it.
 *
 * @param text a rule in each line
 * @param rules read from the text, with ids of their own; left out where only the text is asked for
 * @param missing zones and objects that the rules name and the draft lacks
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record RuleTexts(
    @Schema(required = true) String text, List<RuleDocument> rules, List<MissingName> missing) {
  /** The name of an object, with the word of its kind. */
  public record MissingName(
      @Schema(required = true) String kind, @Schema(required = true) String name) {}
}
