package dev.ironsieve.server.common;

import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A rulebase below a common one, which gets its rules.
 *
 * @param gateways names of the gateways that follow it
 */
public record BelowDocument(
    @Schema(required = true) long id,
    @Schema(required = true) String name,
    @Schema(
            required = true,
            enumeration = {"traffic", "common", "services"})
        String kind,
    @Schema(required = true) List<String> gateways) {}
