package dev.ironsieve.server.rulebase;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** A rulebase in the list. */
public record RulebaseSummary(
    @Schema(required = true) long id,
    @Schema(required = true) String name,
    @Schema(required = true) int revision) {}
