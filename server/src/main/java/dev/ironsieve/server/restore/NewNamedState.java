package dev.ironsieve.server.restore;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The request to give the present state of a draft a name.
 *
 * @param version of the draft that the person saw
 */
public record NewNamedState(
    @Schema(required = true) String name, @Schema(required = true) Long version) {}
