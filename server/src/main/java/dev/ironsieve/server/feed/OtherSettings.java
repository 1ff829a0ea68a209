package dev.ironsieve.server.feed;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** The request to change the settings of a feed. */
public record OtherSettings(@Schema(required = true) FeedSettings settings) {}
