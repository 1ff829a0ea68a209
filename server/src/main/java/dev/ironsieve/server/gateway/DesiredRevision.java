package dev.ironsieve.server.gateway;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The revision that a gateway has to follow.
 *
 * @param digest SHA-256 of its document, hexadecimal
 */
public record DesiredRevision(
    @Schema(required = true) int revision, @Schema(required = true) String digest) {}
