package dev.ironsieve.server.capture;

import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The connections that a signature recognises.
 *
 * @param holds numbers of the connections for which it holds
 * @param meant numbers of those that would be taken for its application
 * @param taken numbers of those of these that are taken for something else now
 * @param mistakes what else it would take, in the samples that ship
 */
public record SignatureTrialResult(
    @Schema(required = true) List<Long> holds,
    @Schema(required = true) List<Long> meant,
    @Schema(required = true) List<Long> taken,
    @Schema(required = true) List<Mistake> mistakes) {}
