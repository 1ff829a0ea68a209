package dev.ironsieve.gateway;

import dev.ironsieve.core.model.Connection;
import java.time.Duration;
import java.time.Instant;

/**
 * A connection attempt of the generated traffic.
 *
 * @param connection with hosts, devices and applications as they are, not as rules name them
 * @param at when it begins
 * @param length how long it is open if it is allowed
 * @param bytes that it moves then, in both directions
 */
record Attempt(Connection connection, Instant at, Duration length, long bytes) {
  private static final int PACKET = 900; // bytes, on average
  private static final int REQUEST = 60; // bytes of a packet that opens a connection

  long packets() {
    return 2 + bytes / PACKET;
  }

  /** The bytes of the first so many packets: of one that only asks, of all, or of a part. */
  long bytes(long packets) {
    if (packets >= packets()) {
      return bytes;
    }
    return packets <= 1 ? REQUEST : Math.min(bytes, packets * PACKET);
  }
}
