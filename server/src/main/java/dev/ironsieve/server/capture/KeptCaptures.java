package dev.ironsieve.server.capture;

import dev.ironsieve.core.catalogue.Catalogue;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.capture.CapturedConnection;
import dev.ironsieve.formats.capture.Captures;
import dev.ironsieve.server.http.Problem;
import jakarta.enterprise.context.ApplicationScoped;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * The captures that are being worked on. They stay in memory, the last few of them, and are gone
 * with the server: what people say on the wire is nothing to keep.
 */
@ApplicationScoped
public class KeptCaptures {
  private static final int MOST_CAPTURES = 8;
  private static final int MOST_CONNECTIONS = 20_000;

  private final Map<Long, Kept> kept = new LinkedHashMap<>(); // the oldest first
  private long last;

  /**
   * One capture.
   *
   * @param connections the first {@value #MOST_CONNECTIONS}
   * @param remarks what of it could not be read
   */
  record Kept(
      long id,
      String name,
      long packets,
      List<CapturedConnection> connections,
      List<String> remarks) {}

  synchronized List<Kept> all() {
    return List.copyOf(kept.values());
  }

  /** The connections that two editions of the catalogue take for different things. */
  public List<ToldOtherwise> toldOtherwise(Catalogue before, Catalogue after) {
    return ToldOtherwise.between(before, after, all());
  }

  /**
   * @throws Problem 404 if it is not there any more
   */
  synchronized Kept capture(long id) {
    Kept found = kept.get(id);
    if (found == null) {
      throw Problem.of(404, "This capture is not here any more. Bring it in again.");
    }
    return found;
  }

  /**
   * Reads a capture and keeps it.
   *
   * @throws InvalidDocument if it is none
   */
  public long add(String name, byte[] bytes) {
    List<CapturedConnection> connections = new ArrayList<>();
    Captures.Summary summary;
    try {
      summary =
          Captures.read(
              name,
              new ByteArrayInputStream(bytes),
              connection -> {
                if (connections.size() < MOST_CONNECTIONS) {
                  connection.sight().tls(); // worked out now, since several threads may ask later
                  connections.add(connection);
                }
              });
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    List<String> remarks = new ArrayList<>();
    if (summary.cut() != null) {
      remarks.add(summary.cut());
    }
    if (summary.connections() > connections.size()) {
      remarks.add(
          "The first %,d of %,d connections are kept."
              .formatted(connections.size(), summary.connections()));
    }
    if (summary.passedOver() > 0) {
      remarks.add(
          "%,d packets are no IP, cut short, or later fragments.".formatted(summary.passedOver()));
    }
    summary
        .unknownLinks()
        .forEach(
            (link, packets) ->
                remarks.add("%,d packets are on links of type %d.".formatted(packets, link)));
    return keep(name, summary.packets(), connections, remarks);
  }

  private synchronized long keep(
      String name, long packets, List<CapturedConnection> connections, List<String> remarks) {
    last++;
    kept.put(last, new Kept(last, name, packets, List.copyOf(connections), List.copyOf(remarks)));
    if (kept.size() > MOST_CAPTURES) {
      kept.remove(kept.keySet().iterator().next());
    }
    return last;
  }
}
