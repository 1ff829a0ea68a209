package dev.ironsieve.server.gateway;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * An enrolled gateway.
 *
 * @param secret that it signs its requests with
 */
public record Enrolled(
    @Schema(required = true) String name, @Schema(required = true) String secret) {}
