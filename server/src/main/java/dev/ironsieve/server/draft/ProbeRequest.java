package dev.ironsieve.server.draft;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A connection to try.
 *
 * @param line such as {@code from 10.4.2.9 to 192.0.2.10 tcp/443}
 */
public record ProbeRequest(@Schema(required = true) String line) {}
