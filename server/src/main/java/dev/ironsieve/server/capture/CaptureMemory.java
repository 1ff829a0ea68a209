package dev.ironsieve.server.capture;

import dev.ironsieve.core.catalogue.Catalogue;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.capture.Captures;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * The captures that are being worked on: the samples that ship, and those that were brought in.
 * These stay in memory, the last few of them, and are gone with the server: what people say on the
 * wire is nothing to keep.
 */
@ApplicationScoped
public class CaptureMemory {
  private static final int MOST_CAPTURES = 8;
  private static final int MOST_CONNECTIONS = 20_000;

  private final RecentLog recent;
  private final List<Capture> samples = new ArrayList<>();
  private final Map<Long, Capture> brought = new LinkedHashMap<>(); // the oldest first
  private long last;

  CaptureMemory(RecentLog recent) {
    this.recent = recent;
    samples.add(read(Capture.Kind.SAMPLE, "an hour at the harbour", sample("harbour")));
  }

  /**
   * The bytes of a capture that ships.
   *
   * @param name of the file, without what tells its format
   */
  public static byte[] sample(String name) {
    String file = "/samples/" + name + ".pcap";
    try (InputStream in = CaptureMemory.class.getResourceAsStream(file)) {
      return in.readAllBytes();
    } catch (IOException e) {
      throw new UncheckedIOException(file, e);
    }
  }

  /** All but the recent log. */
  synchronized List<Capture> all() {
    List<Capture> out = new ArrayList<>(samples);
    out.addAll(brought.values());
    return out;
  }

  synchronized List<Capture> samples() {
    return List.copyOf(samples);
  }

  /** The connections that two editions of the catalogue take for different things. */
  public List<ReclassifiedConnection> reclassified(Catalogue before, Catalogue after) {
    List<Capture> everything = new ArrayList<>(all());
    everything.add(recent.until(recent.newest(), Integer.MAX_VALUE));
    return ReclassifiedConnection.between(before, after, everything);
  }

  /**
   * @throws Refusal.NotFound if it is not there any more
   */
  Capture capture(long id) {
    return all().stream()
        .filter(kept -> kept.id() == id)
        .findFirst()
        .orElseThrow(
            () -> new Refusal.NotFound("This capture is not here any more. Bring it in again."));
  }

  /**
   * Reads a capture and keeps it.
   *
   * @throws InvalidDocument if it is none
   */
  synchronized Capture add(String name, byte[] bytes) {
    Capture added = read(Capture.Kind.BROUGHT, name, bytes);
    brought.put(added.id(), added);
    if (brought.size() > MOST_CAPTURES) {
      brought.remove(brought.keySet().iterator().next());
    }
    return added;
  }

  private Capture read(Capture.Kind kind, String name, byte[] bytes) {
    List<NumberedConnection> connections = new ArrayList<>();
    try {
      Captures.Summary summary =
          Captures.read(
              name,
              new ByteArrayInputStream(bytes),
              connection -> {
                if (connections.size() < MOST_CONNECTIONS) {
                  connections.add(new NumberedConnection(connections.size(), null, connection));
                }
              });
      List<String> remarks = Remarks.of(summary, connections.size());
      return new Capture(++last, name, kind, summary.packets(), connections, remarks);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
