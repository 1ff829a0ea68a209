package dev.ironsieve.server.revision;

import dev.ironsieve.server.gateway.FirstGateways;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The request to publish a draft.
 *
 * @param version of the draft that was reviewed
 * @param note a summary for colleagues; up to 2,000 characters
 * @param overrideReason why it is published in spite of blockers; left out where there are none
 * @param first the gateways that follow it before the others; all at once if left out
 */
public record PublishRequest(
    @Schema(required = true) Long version,
    String note,
    String overrideReason,
    FirstGateways first) {}
