package dev.ironsieve.server.rulebase;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A rulebase in the list.
 *
 * @param common name of the common rulebase that its draft is below; left out if there is none
 */
public record RulebaseSummary(
    @Schema(required = true) long id,
    @Schema(required = true) String name,
    @Schema(
            required = true,
            enumeration = {"traffic", "common", "services"})
        String kind,
    String common,
    @Schema(required = true) int revision) {}
