package dev.ironsieve.server.revision;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The approval of a request to publish.
 *
 * @param version of the draft that was reviewed
 * @param digest of the request that was reviewed, hexadecimal
 */
public record ApprovalRequest(
    @Schema(required = true) Long version, @Schema(required = true) String digest) {}
