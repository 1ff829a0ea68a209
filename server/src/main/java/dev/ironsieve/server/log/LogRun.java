package dev.ironsieve.server.log;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The records of one run of a gateway's program.
 *
 * @param gateway its name
 * @param stored how many of its records are stored
 * @param lost how many never came, by the gaps in their numbers
 * @param repeated how many came again, and were stored once
 * @param clockAhead by how many seconds the gateway's clock is ahead of the server's
 */
public record LogRun(
    @Schema(required = true) String gateway,
    @Schema(required = true) long stored,
    @Schema(required = true) long lost,
    @Schema(required = true) long repeated,
    @Schema(required = true) String startedAt,
    @Schema(required = true) String lastAt,
    @Schema(required = true) double clockAhead) {}
