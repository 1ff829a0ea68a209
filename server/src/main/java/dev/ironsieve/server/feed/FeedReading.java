package dev.ironsieve.server.feed;

import java.time.Instant;

/**
 * One attempt to read a feed.
 *
 * @param edition the edition that was found, or null if the try failed
 * @param fault why it failed, or null
 */
record FeedReading(Instant at, Long edition, String etag, String fault) {}
