package dev.ironsieve.server.draft;

import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A schedule read from the events of a calendar with one summary.
 *
 * @param name the summary; empty if there is none
 */
public record ReadSchedule(
    @Schema(required = true) String name, @Schema(required = true) List<String> members) {}
