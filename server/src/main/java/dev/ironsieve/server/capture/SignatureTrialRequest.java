package dev.ironsieve.server.capture;

import dev.ironsieve.formats.catalogue.SignatureDocument;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A signature to try beside those of an edition.
 *
 * @param application the application that it tells
 */
public record SignatureTrialRequest(
    @Schema(required = true) String edition,
    @Schema(required = true) String application,
    @Schema(required = true) SignatureDocument signature) {}
