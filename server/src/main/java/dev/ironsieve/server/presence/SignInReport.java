package dev.ironsieve.server.presence;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The report that a person signed in or out at an address.
 *
 * @param device known facts of their device, such as {@code managed, platform kelpos, has
 *     disk-lock}; left out if that is nothing
 */
public record SignInReport(@Schema(required = true) String person, String device) {}
