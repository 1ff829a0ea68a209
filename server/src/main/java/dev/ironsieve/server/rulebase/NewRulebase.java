package dev.ironsieve.server.rulebase;

import com.fasterxml.jackson.annotation.JsonInclude;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The request to create a rulebase.
 *
 * @param kind traffic if left out
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record NewRulebase(
    @Schema(required = true) String name,
    @Schema(enumeration = {"traffic", "common", "services"}) String kind) {}
