package dev.ironsieve.formats.ipfix;

import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.formats.syslog.DecisionRecord;
import java.time.Instant;
import java.util.Optional;

/**
 * One connection as collectors of flows know it.
 *
 * @param from an address of the family of {@code to}
 * @param protocol IP protocol number
 * @param fromPort 0 for protocols without ports
 * @param toPort 0 for protocols without ports
 * @param icmp type * 256 + code; 0 for other protocols
 * @param packets in both directions
 * @param bytes in both directions
 * @param event null if the exporter does not say
 * @param person empty if not known
 * @param application empty if not known
 */
public record FlowRecord(
    Instant start,
    Instant end,
    Address from,
    Address to,
    int protocol,
    int fromPort,
    int toPort,
    int icmp,
    long packets,
    long bytes,
    Event event,
    String person,
    String application) {
  /** What the firewall did: values of the information element firewallEvent (233). */
  public enum Event {
    CREATED(1),
    DELETED(2),
    DENIED(3),
    ALERT(4),
    UPDATE(5);

    final int value;

    Event(int value) {
      this.value = value;
    }

    /** Null for a value that is none of these. */
    static Event of(long value) {
      for (Event event : values()) {
        if (event.value == value) {
          return event;
        }
      }
      return null;
    }
  }

  /** The flow of a connection that ended or was refused; empty while it is open. */
  public static Optional<FlowRecord> of(DecisionRecord record) {
    Verdict verdict = record.verdict();
    boolean ended = record.phase().equals("end");
    if (!ended && verdict.letsThrough()) {
      return Optional.empty();
    }
    boolean ports = Transport.hasPorts(record.protocol());
    return Optional.of(
        new FlowRecord(
            record.startedAt(),
            record.startedAt().plusMillis(record.millis()),
            record.from(),
            record.to(),
            record.protocol(),
            record.sourcePort(),
            ports ? record.detail() : 0,
            ports ? 0 : record.detail(),
            record.packets(),
            record.bytes(),
            ended ? Event.DELETED : Event.DENIED,
            record.person() == null ? "" : record.person(),
            record.application() == null ? "" : record.application()));
  }
}
