package dev.ironsieve.server.feed;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** Other settings of a feed. */
public record OtherSettings(@Schema(required = true) FeedSettings settings) {}
