package dev.ironsieve.server.draft;

import dev.ironsieve.core.checks.CheckResult;
import dev.ironsieve.core.repair.Repair;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.server.draft.EditionEffect.CheckFlip;
import dev.ironsieve.server.draft.EditionEffect.VerdictEffect;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A repair of a finding, with its effect.
 *
 * @param summary what it does
 * @param edit the change that does it
 * @param verdicts kinds of connections that get another verdict by it, the most first
 * @param complete whether these are all verdicts that change
 * @param checks those whose results change
 */
public record RepairDocument(
    @Schema(required = true) String summary,
    @Schema(required = true) EditDocument edit,
    @Schema(required = true) List<VerdictEffect> verdicts,
    @Schema(required = true) boolean complete,
    @Schema(required = true) List<CheckFlip> checks) {
  static RepairDocument of(Repair repair, Rulebase base) {
    return new RepairDocument(
        repair.summary(),
        EditDocuments.write(repair.edit()),
        EditionEffect.verdicts(repair.effect()),
        repair.effect().complete(),
        CheckResult.flips(base, repair.edit().apply(base), repair.effect()).stream()
            .map(CheckFlip::of)
            .toList());
  }
}
