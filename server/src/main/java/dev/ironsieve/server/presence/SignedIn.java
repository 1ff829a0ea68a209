package dev.ironsieve.server.presence;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A person who is signed in at an address.
 *
 * @param person the directory id
 * @param device the known facts of the device; left out if none
 * @param since ISO 8601
 */
public record SignedIn(
    @Schema(required = true) String person,
    @Schema(required = true) String address,
    String device,
    @Schema(required = true) String since) {}
