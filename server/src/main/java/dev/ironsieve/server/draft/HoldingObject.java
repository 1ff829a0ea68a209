package dev.ironsieve.server.draft;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * An object that holds what was asked for.
 *
 * @param kind {@code address} or {@code service}
 */
public record HoldingObject(
    @Schema(required = true) String kind, @Schema(required = true) String name) {}
