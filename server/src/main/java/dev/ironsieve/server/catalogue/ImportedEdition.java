package dev.ironsieve.server.catalogue;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** An imported edition of the catalogue. */
public record ImportedEdition(
    @Schema(required = true) String name, @Schema(required = true) int applications) {}
