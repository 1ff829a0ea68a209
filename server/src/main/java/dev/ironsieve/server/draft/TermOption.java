package dev.ironsieve.server.draft;

import dev.ironsieve.core.text.TermCompletion;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A name offered for completion.
 *
 * @param coordinate what it is of, such as {@code application}
 * @param members how many values it stands for
 * @param some the first few of these, for a set
 */
public record TermOption(
    @Schema(required = true) String coordinate,
    @Schema(required = true) String name,
    @Schema(required = true) int members,
    @Schema(required = true) List<String> some) {
  static TermOption of(TermCompletion.Option option) {
    return new TermOption(
        option.coordinate().word(), option.name(), option.members(), option.some());
  }
}
