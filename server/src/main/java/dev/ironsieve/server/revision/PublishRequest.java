package dev.ironsieve.server.revision;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The request to publish a draft.
 *
 * @param version of the draft that was reviewed
 * @param note a summary for colleagues; up to 2,000 characters
 * @param overrideReason why it is published in spite of blockers; left out where there are none
 */
public record PublishRequest(
    @Schema(required = true) Long version, String note, String overrideReason) {}
