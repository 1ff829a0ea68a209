package dev.ironsieve.server.rulebase;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** The name of a new, empty rulebase. */
public record NewRulebase(@Schema(required = true) String name) {}
