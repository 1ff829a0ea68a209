package dev.ironsieve.server.restore;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A state of a draft under a name, to which the draft can go back.
 *
 * @param version of the draft
 * @param revision on which the draft was based
 * @param by the display name of who named it
 * @param at RFC 3339
 */
public record NamedState(
    @Schema(required = true) String name,
    @Schema(required = true) long version,
    @Schema(required = true) int revision,
    @Schema(required = true) String by,
    @Schema(required = true) String at) {}
