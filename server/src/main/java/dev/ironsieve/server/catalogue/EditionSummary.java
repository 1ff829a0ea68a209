package dev.ironsieve.server.catalogue;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * An edition of the catalogue in the list.
 *
 * @param importedAt ISO 8601
 * @param by who imported it; nothing for the demo's
 */
public record EditionSummary(
    @Schema(required = true) String name, @Schema(required = true) String importedAt, String by) {}
