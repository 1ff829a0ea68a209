package dev.ironsieve.server.log;

import dev.ironsieve.formats.syslog.DecisionRecord;
import dev.ironsieve.formats.syslog.DecisionRecord.Origin;
import dev.ironsieve.formats.syslog.HitRecord;
import java.net.InetAddress;
import java.time.Instant;

/**
 * A received record that waits to be stored: one of the two is null.
 *
 * @param sentAt by the sender's clock; null if it has none
 */
record LogEntry(
    InetAddress sender,
    Instant receivedAt,
    Instant sentAt,
    DecisionRecord decision,
    HitRecord hits) {
  Origin origin() {
    return decision == null ? hits.origin() : decision.origin();
  }
}
