package dev.ironsieve.server.revision;

import dev.ironsieve.server.gateway.FirstGateways;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The approval of a request to publish.
 *
 * @param version of the draft that was reviewed
 * @param digest of the request that was reviewed, hexadecimal
 * @param first the gateways that follow it before the others; all at once if left out
 */
public record ApprovalRequest(
    @Schema(required = true) Long version,
    @Schema(required = true) String digest,
    FirstGateways first) {}
