package dev.ironsieve.server.rulebase;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** The request to create an empty rulebase. */
public record NewRulebase(@Schema(required = true) String name) {}
