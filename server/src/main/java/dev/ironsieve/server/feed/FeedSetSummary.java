package dev.ironsieve.server.feed;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** A named set of a feed with its size. */
public record FeedSetSummary(
    @Schema(required = true) String name, @Schema(required = true) int entries) {}
