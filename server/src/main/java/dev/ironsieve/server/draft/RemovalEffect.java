package dev.ironsieve.server.draft;

import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.edit.Removal;
import dev.ironsieve.formats.document.FromModel;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The effect of deleting an object.
 *
 * @param rules each as it is and as it would be
 * @param complete whether these are all verdicts that change
 */
public record RemovalEffect(
    @Schema(required = true) List<ChangedRule> rules,
    @Schema(required = true) List<EditionEffect.VerdictEffect> verdicts,
    @Schema(required = true) boolean complete) {
  static RemovalEffect of(Removal removal, Difference difference) {
    return new RemovalEffect(
        removal.changes().stream()
            .map(
                change ->
                    new ChangedRule(
                        FromModel.rule(change.before()), FromModel.rule(change.after())))
            .toList(),
        EditionEffect.verdicts(difference),
        difference.complete());
  }
}
