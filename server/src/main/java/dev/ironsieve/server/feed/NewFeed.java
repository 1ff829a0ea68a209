package dev.ironsieve.server.feed;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** A feed to add. */
public record NewFeed(
    @Schema(required = true) String name,
    @Schema(required = true) String kind,
    @Schema(required = true) FeedSettings settings) {}
