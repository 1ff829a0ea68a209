package dev.ironsieve.server.comment;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A comment on a rule.
 *
 * @param rule its id; empty for the default rule
 * @param by the name of the account
 * @param byName its name for people
 * @param at ISO 8601
 */
public record ReviewComment(
    @Schema(required = true) long id,
    @Schema(required = true) String rule,
    @Schema(required = true) String by,
    @Schema(required = true) String byName,
    @Schema(required = true) String at,
    @Schema(required = true) String text) {}
