package dev.ironsieve.server.revision;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The request to publish a draft later.
 *
 * @param version of the draft that was reviewed
 * @param due RFC 3339
 * @param note as in {@link PublishRequest}
 * @param overrideReason as in {@link PublishRequest}
 */
public record ScheduleRequest(
    @Schema(required = true) Long version,
    @Schema(required = true) String due,
    String note,
    String overrideReason) {}
