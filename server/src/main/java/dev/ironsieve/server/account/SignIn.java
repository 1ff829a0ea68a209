package dev.ironsieve.server.account;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** The request to sign in: name and password. */
public record SignIn(
    @Schema(required = true) String name, @Schema(required = true) String password) {}
