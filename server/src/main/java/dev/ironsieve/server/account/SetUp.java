package dev.ironsieve.server.account;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** The request that creates the first admin. */
public record SetUp(
    @Schema(required = true) String token,
    @Schema(required = true) String name,
    @Schema(required = true) String displayName,
    @Schema(required = true) String password) {}
