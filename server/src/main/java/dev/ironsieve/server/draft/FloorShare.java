package dev.ironsieve.server.draft;

import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The reserved bandwidth of one rate plan.
 *
 * @param rules names of the rules that it is kept for
 * @param times how often its floor is kept
 */
public record FloorShare(
    @Schema(required = true) String plan,
    @Schema(required = true) List<String> rules,
    @Schema(required = true) long times,
    @Schema(required = true) String total) {}
