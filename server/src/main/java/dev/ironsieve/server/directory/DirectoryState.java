package dev.ironsieve.server.directory;

import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The state of the directory: its newest snapshots and the last attempt to read it.
 *
 * @param snapshots newest first
 * @param address where it is; nothing if none is configured
 * @param triedAt when it was last tried, ISO 8601
 * @param readAt when it was last read to its end
 * @param fault what went wrong if the last try failed
 */
public record DirectoryState(
    @Schema(required = true) List<SnapshotSummary> snapshots,
    String address,
    String triedAt,
    String readAt,
    String fault) {}
