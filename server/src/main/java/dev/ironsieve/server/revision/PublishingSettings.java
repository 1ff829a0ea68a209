package dev.ironsieve.server.revision;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** Settings of publishing that an admin changes. */
public record PublishingSettings(@Schema(required = true) Boolean fourEyes) {}
