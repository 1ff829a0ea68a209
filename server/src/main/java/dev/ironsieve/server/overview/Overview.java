package dev.ironsieve.server.overview;

import java.util.List;
import java.util.Map;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * What needs attention on one rulebase.
 *
 * @param revision the newest
 * @param changes edits of the draft that are not published
 * @param checks how many saved checks it has
 * @param failingChecks how many of them fail on the draft
 * @param findings of the draft, by severity: {@code error}, {@code warning}, {@code note}
 * @param gateways how many are in each state, see {@code GatewaySummary}; revoked ones left out
 * @param decided connections in each of the last 24 hours, the oldest first
 * @param refused those of them that rules with the verdict drop or reject decided, or the default
 *     rule, by the verdicts of the draft
 */
public record Overview(
    @Schema(required = true) int revision,
    @Schema(required = true) int changes,
    @Schema(required = true) int checks,
    @Schema(required = true) int failingChecks,
    @Schema(required = true) Map<String, Integer> findings,
    @Schema(required = true) Map<String, Integer> gateways,
    @Schema(required = true) List<Long> decided,
    @Schema(required = true) List<Long> refused) {}
