package dev.ironsieve.server.gateway;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The report of a gateway about a revision.
 *
 * @param digest of the document that it has
 * @param reason why it refused the revision, up to 300 characters; left out otherwise
 */
public record GatewayReport(
    @Schema(required = true) Integer revision,
    @Schema(required = true) String digest,
    @Schema(
            required = true,
            enumeration = {"fetching", "verified", "in force", "refused"})
        String state,
    String reason) {}
