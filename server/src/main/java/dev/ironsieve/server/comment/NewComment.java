package dev.ironsieve.server.comment;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The request to comment on a rule.
 *
 * @param rule its id; empty for the default rule
 */
public record NewComment(
    @Schema(required = true) String rule, @Schema(required = true) String text) {}
