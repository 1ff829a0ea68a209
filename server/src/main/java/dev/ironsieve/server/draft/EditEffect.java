package dev.ironsieve.server.draft;

import dev.ironsieve.core.checks.CheckResult;
import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.server.draft.EditionEffect.CheckFlip;
import dev.ironsieve.server.draft.EditionEffect.VerdictEffect;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * What an edit would change.
 *
 * @param verdicts kinds of connections that get another verdict, the most first
 * @param complete whether these are all verdicts that change
 * @param checks those whose results change
 */
public record EditEffect(
    @Schema(required = true) List<VerdictEffect> verdicts,
    @Schema(required = true) boolean complete,
    @Schema(required = true) List<CheckFlip> checks) {
  static EditEffect of(Difference difference, Rulebase before, Rulebase after) {
    return new EditEffect(
        EditionEffect.verdicts(difference),
        difference.complete(),
        CheckResult.flips(before, after, difference).stream().map(CheckFlip::of).toList());
  }
}
