package dev.ironsieve.server.account;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** A new account. */
public record NewAccount(
    @Schema(required = true) String name,
    @Schema(required = true) String displayName,
    @Schema(required = true) String role,
    @Schema(required = true) String password) {}
