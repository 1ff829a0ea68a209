package dev.ironsieve.formats.capture;

import dev.ironsieve.formats.InvalidDocument;
import java.io.IOException;
import java.io.InputStream;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Consumer;

/**
 * Takes a capture apart into connections. Both sides of TCP are put together as far as a recogniser
 * looks; of UDP the first datagrams are kept. Memory is bounded: past {@value #MOST_FLOWS}
 * connections at a time, or {@value #MOST_BYTES} bytes of them, the oldest is handed on as it is.
 */
public final class Captures {
  private static final int MOST_FLOWS = 100_000;
  private static final long MOST_BYTES = 128L << 20;

  /** What two packets of one connection have in common, whichever side sends. */
  private record Ends(
      long highA, long lowA, long highB, long lowB, int ports, int protocolAndFamily) {
    static Ends of(Segment s) {
      int high = Long.compareUnsigned(s.fromHigh, s.toHigh);
      int low = high != 0 ? high : Long.compareUnsigned(s.fromLow, s.toLow);
      boolean turned = low != 0 ? low > 0 : s.fromPort > s.toPort;
      int kind = s.protocol << 1 | (s.v6 ? 1 : 0);
      return turned
          ? new Ends(s.toHigh, s.toLow, s.fromHigh, s.fromLow, s.toPort << 16 | s.fromPort, kind)
          : new Ends(s.fromHigh, s.fromLow, s.toHigh, s.toLow, s.fromPort << 16 | s.toPort, kind);
    }

    @Override
    public int hashCode() {
      long mixed = (lowA * 31 + lowB) * 31 + (highA ^ Long.rotateLeft(highB, 32));
      return (int) ((mixed * 0x9e3779b97f4a7c15L + ports) * 0x9e3779b97f4a7c15L >>> 32);
    }
  }

  /**
   * What was read.
   *
   * @param passedOver packets that are no IP, cut short, or later fragments
   * @param unknownLinks packets of types of link that are not read here, by the type's number
   * @param cut what is wrong with the end of the file; null if nothing is
   */
  public record Summary(
      long packets,
      long connections,
      long passedOver,
      Map<Integer, Long> unknownLinks,
      String cut) {}

  private final Map<Ends, Flow> flows = new LinkedHashMap<>(); // the oldest first
  private final Consumer<CapturedConnection> out;
  private final Segment segment = new Segment();
  private final Map<Integer, Long> unknownLinks = new TreeMap<>();
  private long bytes;
  private long packets;
  private long connections;
  private long passedOver;

  private Captures(Consumer<CapturedConnection> out) {
    this.out = out;
  }

  /**
   * Reads a capture and hands on its connections, as a rule in the order in which they begin.
   *
   * @param file what to call the input in complaints
   * @throws InvalidDocument if it is no capture, or one that goes wrong in the middle; what was
   *     handed on before stands
   */
  public static Summary read(String file, InputStream in, Consumer<CapturedConnection> out)
      throws IOException {
    Captures captures = new Captures(out);
    String cut = CaptureReader.read(file, in, captures::packet);
    captures.flows.values().forEach(captures::handOn);
    return new Summary(
        captures.packets, captures.connections, captures.passedOver, captures.unknownLinks, cut);
  }

  private void packet(int link, byte[] from, int start, int length) {
    packets++;
    if (!Segment.knows(link)) {
      unknownLinks.merge(link, 1L, Long::sum);
      return;
    }
    if (!segment.read(link, from, start, length)) {
      passedOver++;
      return;
    }
    Ends ends = Ends.of(segment);
    Flow flow = flows.get(ends);
    if (flow != null && flow.isAnother(segment)) {
      flows.remove(ends);
      bytes -= handOn(flow);
      flow = null;
    }
    if (flow == null) {
      flow = new Flow(segment, segment.has(Segment.SYN) && segment.has(Segment.ACK));
      flows.put(ends, flow);
    }
    bytes += flow.add(segment);
    while (flows.size() > MOST_FLOWS || (bytes > MOST_BYTES && flows.size() > 1)) {
      Iterator<Flow> oldest = flows.values().iterator();
      Flow ended = oldest.next();
      oldest.remove();
      bytes -= handOn(ended);
    }
  }

  /** Returns how many bytes the connection held. */
  private long handOn(Flow flow) {
    connections++;
    out.accept(flow.connection());
    return flow.held();
  }
}
