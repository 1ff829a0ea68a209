package dev.ironsieve.server.log;

import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * How the intake of log records is doing.
 *
 * @param waiting records that wait to be stored
 * @param runs of the gateways of the rulebase, the latest first
 * @param senders by address, of all rulebases
 */
public record LogState(
    @Schema(required = true) int waiting,
    @Schema(required = true) List<LogRun> runs,
    @Schema(required = true) List<LogSender> senders) {}
