package dev.ironsieve.server.feed;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** The request to add a feed. */
public record NewFeed(
    @Schema(required = true) String name,
    @Schema(required = true) String kind,
    @Schema(required = true) FeedSettings settings) {}
