package dev.ironsieve.server.feed;

/** Thrown if a feed could not be fetched. The message is for people. */
final class FeedFault extends RuntimeException {
  FeedFault(String message) {
    super(message);
  }
}
