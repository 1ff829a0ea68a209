package dev.ironsieve.server.draft;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * An edit, and the version of the draft that the person saw when making it.
 *
 * @param version as it stood in the draft or its last change
 */
public record EditRequest(
    @Schema(required = true) Long version, @Schema(required = true) EditDocument edit) {}
