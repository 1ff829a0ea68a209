package dev.ironsieve.server.catalogue;

import dev.ironsieve.formats.catalogue.SignatureDocument;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The request to add a signature of one's own.
 *
 * @param edition what to call the edition that has it
 * @param application the application that it tells; a new one if there is none of that name
 */
public record OwnSignature(
    @Schema(required = true) String edition,
    @Schema(required = true) String application,
    @Schema(required = true) SignatureDocument signature) {}
