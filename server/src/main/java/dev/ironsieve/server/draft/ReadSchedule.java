package dev.ironsieve.server.draft;

import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * What the events of a calendar with one summary say, as a schedule says it.
 *
 * @param name the summary; empty if there is none
 */
public record ReadSchedule(
    @Schema(required = true) String name, @Schema(required = true) List<String> members) {}
