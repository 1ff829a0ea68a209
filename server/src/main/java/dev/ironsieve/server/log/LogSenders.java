package dev.ironsieve.server.log;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import jakarta.enterprise.context.ApplicationScoped;
import java.net.InetAddress;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;

/** Counts what each address sends by syslog and IPFIX, since the server's start. */
@ApplicationScoped
class LogSenders {
  private static final int MOST_SENDERS = 1_000;
  private static final int MOST_FAULT = 300;

  private final Cache<InetAddress, Counts> counts =
      Caffeine.newBuilder().maximumSize(MOST_SENDERS).build();

  /** Kinds of messages. */
  enum Kind {
    /** Taken to be stored. */
    RECORD,
    /** Valid syslog that is no record of a gateway. */
    OTHER,
    /** No valid syslog or IPFIX, or a record with a wrong part. */
    MALFORMED,
    /** A record of a gateway that is not known or was revoked. */
    UNKNOWN_GATEWAY,
    /** Dropped since too many wait. */
    OVERFLOW,
    /** Refused by the database. */
    REFUSED,
    /** A flow that was read. */
    FLOW,
    /** A flow that never came, by the sequence numbers. */
    FLOW_LOST,
    /** A message with flows whose template is not known yet. */
    UNREAD_FLOWS
  }

  private static final class Counts {
    private final long[] byKind = new long[Kind.values().length];
    private String fault;
    private Instant lastAt;
  }

  void count(InetAddress sender, Kind kind, long many) {
    count(sender, kind, many, null);
  }

  void count(InetAddress sender, Kind kind, String fault) {
    count(sender, kind, 1, fault);
  }

  private void count(InetAddress sender, Kind kind, long many, String fault) {
    Counts of = counts.get(sender, any -> new Counts());
    synchronized (of) {
      of.byKind[kind.ordinal()] += many;
      of.lastAt = Instant.now();
      if (fault != null) {
        of.fault = fault.length() <= MOST_FAULT ? fault : fault.substring(0, MOST_FAULT) + "…";
      }
    }
  }

  List<LogSender> all() {
    return counts.asMap().entrySet().stream()
        .map(LogSenders::sender)
        .sorted(Comparator.comparing(LogSender::address))
        .toList();
  }

  private static LogSender sender(Map.Entry<InetAddress, Counts> entry) {
    Counts of = entry.getValue();
    synchronized (of) {
      return new LogSender(
          entry.getKey().getHostAddress(),
          of.byKind[Kind.RECORD.ordinal()],
          of.byKind[Kind.OTHER.ordinal()],
          of.byKind[Kind.MALFORMED.ordinal()],
          of.byKind[Kind.UNKNOWN_GATEWAY.ordinal()],
          of.byKind[Kind.OVERFLOW.ordinal()],
          of.byKind[Kind.REFUSED.ordinal()],
          of.byKind[Kind.FLOW.ordinal()],
          of.byKind[Kind.FLOW_LOST.ordinal()],
          of.byKind[Kind.UNREAD_FLOWS.ordinal()],
          of.fault,
          of.lastAt.toString());
    }
  }
}
