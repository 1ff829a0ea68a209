package dev.ironsieve.server.capture;

import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.capture.CapturedConnection;
import dev.ironsieve.formats.capture.Captures;
import dev.ironsieve.formats.capture.Tap;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * The connections that taps told last, newest first. They stay in memory, the last {@value
 * #MOST_CONNECTIONS} or {@value #MOST_BYTES} bytes of them, and are gone with the server: what
 * people say on the wire is nothing to keep.
 */
@ApplicationScoped
public class RecentLog {
  /** The name of the log. */
  static final String NAME = "recent connections";

  private static final int MOST_CONNECTIONS = 10_000;
  private static final int MOST_BYTES = 64 << 20;
  private static final int MOST_TAPS = 16;
  private static final int LONGEST_NAME = 60;

  private final Map<String, Tap> taps = new LinkedHashMap<>(16, 0.75f, true);
  private final Deque<NumberedConnection> seen = new ArrayDeque<>(); // the newest first
  private long newest;
  private long packets;
  private long weight;

  /**
   * The summary of one batch from a tap.
   *
   * @param connections in the batch, some of which began in an earlier one
   * @param remarks sentences about the parts that could not be read
   */
  public record Heard(long packets, long connections, List<String> remarks) {}

  /**
   * Reads the next few seconds of a tap's packets, as pcap or pcapng.
   *
   * @throws InvalidDocument if they are none
   */
  synchronized Heard read(String tap, byte[] piece) {
    if (tap.isBlank() || tap.length() > LONGEST_NAME) {
      throw new Refusal.Invalid("tap", "a name of 1 to " + LONGEST_NAME + " characters", tap);
    }
    Tap reader = taps.computeIfAbsent(tap, name -> new Tap(this::add));
    if (taps.size() > MOST_TAPS) {
      taps.remove(taps.keySet().iterator().next()); // the one that was silent for longest
    }
    try {
      Captures.Summary read = reader.read(tap, new ByteArrayInputStream(piece));
      packets += read.packets();
      return new Heard(
          read.packets(), read.connections(), Remarks.of(read, (int) read.connections()));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Adds a connection that was reported now. */
  public synchronized void add(CapturedConnection connection) {
    NumberedConnection added = new NumberedConnection(++newest, Instant.now(), connection);
    seen.addFirst(added);
    weight += added.weight();
    while (seen.size() > MOST_CONNECTIONS || weight > MOST_BYTES) {
      weight -= seen.removeLast().weight();
    }
  }

  /** The number of the newest connection; 0 if there was none. */
  synchronized long newest() {
    return newest;
  }

  /**
   * The log as it was.
   *
   * @param upTo the number of the newest that is asked for
   * @param most how many
   */
  synchronized Capture until(long upTo, int most) {
    List<NumberedConnection> out = new ArrayList<>();
    for (Iterator<NumberedConnection> each = seen.iterator();
        each.hasNext() && out.size() < most; ) {
      NumberedConnection next = each.next();
      if (next.number() <= upTo) {
        out.add(next);
      }
    }
    return new Capture(Capture.RECENT, NAME, Capture.Kind.RECENT, packets, out, List.of());
  }
}
