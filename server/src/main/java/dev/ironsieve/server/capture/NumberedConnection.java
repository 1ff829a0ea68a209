package dev.ironsieve.server.capture;

import dev.ironsieve.formats.capture.CapturedConnection;
import java.time.Instant;

/**
 * A connection with a number that identifies it in its capture.
 *
 * @param number tells it from the others of its capture, or of the recent log
 * @param at when it was heard of; null in a capture
 */
record NumberedConnection(long number, Instant at, CapturedConnection connection) {
  NumberedConnection {
    connection.sight().tls(); // worked out now, since several threads may ask later
  }

  /** Its approximate size in memory, in bytes. */
  int weight() {
    return 500 + connection.sight().client().length + connection.sight().server().length;
  }
}
