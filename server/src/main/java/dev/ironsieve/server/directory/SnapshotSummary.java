package dev.ironsieve.server.directory;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * One snapshot in the list.
 *
 * @param readAt when it was first read so, ISO 8601
 * @param by who asked for that reading; nothing if it was the schedule
 */
public record SnapshotSummary(
    @Schema(required = true) String name, @Schema(required = true) String readAt, String by) {}
