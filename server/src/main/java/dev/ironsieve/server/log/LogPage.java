package dev.ironsieve.server.log;

import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * Records, the newest first.
 *
 * @param more whether there are older ones behind the last
 */
public record LogPage(
    @Schema(required = true) List<LogRow> records, @Schema(required = true) boolean more) {}
