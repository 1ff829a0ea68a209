package dev.ironsieve.server.accepted;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * An accepted finding of the draft.
 *
 * @param rule id of the rule
 * @param kind of the finding
 * @param by the name of the account, for people
 * @param at ISO 8601
 * @param askAgain the day on which it comes back, ISO 8601; nothing if it does not
 */
public record AcceptedFinding(
    @Schema(required = true) String rule,
    @Schema(required = true) String kind,
    @Schema(required = true) String reason,
    @Schema(required = true) String by,
    @Schema(required = true) String at,
    String askAgain) {}
