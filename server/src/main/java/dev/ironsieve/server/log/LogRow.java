package dev.ironsieve.server.log;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The record of a connection that a gateway decided.
 *
 * @param cursor of this record, for the page behind it
 * @param at when the connection began, ISO 8601
 * @param gateway its name
 * @param revision that decided
 * @param rule id of the rule that decided; left out for the default rule
 * @param ruleName its name in that revision
 * @param ruleNumber its number in that revision
 * @param observedRule id of the rule that only observes and would have decided
 * @param observedVerdict what it would have decided
 * @param phase {@code start} or {@code end} of the connection
 * @param service such as {@code tcp/443}
 * @param sourcePort left out for protocols without ports
 * @param stage at which it was decided, or {@code hold} if its sender was held
 * @param connection as a connection line, for a probe
 */
public record LogRow(
    @Schema(required = true) String cursor,
    @Schema(required = true) String at,
    @Schema(required = true) String gateway,
    @Schema(required = true) int revision,
    String rule,
    String ruleName,
    Integer ruleNumber,
    @Schema(
            required = true,
            enumeration = {"allow", "drop", "reject", "caution"})
        String verdict,
    String observedRule,
    String observedVerdict,
    @Schema(
            required = true,
            enumeration = {"start", "end"})
        String phase,
    @Schema(required = true) long millis,
    @Schema(required = true) long packets,
    @Schema(required = true) long bytes,
    @Schema(required = true) String fromZone,
    @Schema(required = true) String from,
    @Schema(required = true) String toZone,
    @Schema(required = true) String to,
    @Schema(required = true) String service,
    Integer sourcePort,
    String person,
    String device,
    String site,
    String application,
    String file,
    String stage,
    @Schema(required = true) String connection) {}
