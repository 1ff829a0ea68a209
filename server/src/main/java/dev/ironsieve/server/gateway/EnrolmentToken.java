package dev.ironsieve.server.gateway;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The token with which a new gateway enrols; it is shown once.
 *
 * @param gateway its id
 */
public record EnrolmentToken(
    @Schema(required = true) long gateway, @Schema(required = true) String token) {}
