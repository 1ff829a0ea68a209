package dev.ironsieve.server.draft;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The request to edit a draft, with the version that its author saw.
 *
 * @param version as it stood in the draft or its last change
 */
public record EditRequest(
    @Schema(required = true) Long version, @Schema(required = true) EditDocument edit) {}
