package dev.ironsieve.server.account;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** What the first admin says. */
public record SetUp(
    @Schema(required = true) String token,
    @Schema(required = true) String name,
    @Schema(required = true) String displayName,
    @Schema(required = true) String password) {}
