package dev.ironsieve.server.accepted;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The request to accept a finding.
 *
 * @param rule id of the rule
 * @param kind of the finding, such as {@code shadowed}
 * @param reason why it is as it should be
 * @param askAgain the day on which the finding comes back, ISO 8601; never if it is left out
 */
public record NewAcceptance(
    @Schema(required = true) String rule,
    @Schema(required = true) String kind,
    @Schema(required = true) String reason,
    String askAgain) {}
