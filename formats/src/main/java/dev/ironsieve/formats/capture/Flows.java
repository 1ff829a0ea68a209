package dev.ironsieve.formats.capture;

import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Consumer;

/**
 * All connections whose packets arrive, within a limit of memory. Both sides of TCP are put
 * together as far as a recogniser looks; of UDP the first datagrams are kept. Memory is bounded:
 * past so many connections at a time, or so many bytes of them, the oldest is handed on as it is.
 */
final class Flows {
  /** The key of a connection, the same for both directions. */
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

  private final Map<Ends, Flow> flows = new LinkedHashMap<>(); // the oldest first
  private final Consumer<CapturedConnection> out;
  private final int mostFlows;
  private final long mostBytes;
  private final Segment segment = new Segment();
  private Map<Integer, Long> unknownLinks = new TreeMap<>();
  private int piece;
  private long bytes;
  private long packets;
  private long connections;
  private long passedOver;

  /**
   * @param out takes the connections, as a rule in the order in which they begin
   * @param mostFlows connections at a time
   * @param mostBytes of all of them together
   */
  Flows(Consumer<CapturedConnection> out, int mostFlows, long mostBytes) {
    this.out = out;
    this.mostFlows = mostFlows;
    this.mostBytes = mostBytes;
  }

  /** Receives a packet; see {@link CaptureReader.Taker}. */
  void packet(int link, byte[] from, int start, int length) {
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
      end(flow);
      flow = null;
    }
    if (flow == null) {
      flow = new Flow(segment, segment.has(Segment.SYN) && segment.has(Segment.ACK), piece);
      flows.put(ends, flow);
    }
    bytes += flow.add(segment, piece);
    while (flows.size() > mostFlows || (bytes > mostBytes && flows.size() > 1)) {
      Iterator<Flow> oldest = flows.values().iterator();
      Flow ended = oldest.next();
      oldest.remove();
      end(ended);
    }
  }

  private void end(Flow flow) {
    bytes -= flow.held();
    handOn(flow);
  }

  private void handOn(Flow flow) {
    if (!flow.isHandedOn()) {
      connections++;
      out.accept(flow.handOn());
    }
  }

  /** There is nothing more to come. */
  void handOnAll() {
    flows.values().forEach(this::end);
    flows.clear();
  }

  /**
   * A piece of what comes has ended. Hands on what has ended too, and what began before the piece;
   * forgets what was handed on and is silent since.
   *
   * @param silent for how many pieces; O(connections)
   */
  void nextPiece(int silent) {
    for (Iterator<Flow> each = flows.values().iterator(); each.hasNext(); ) {
      Flow flow = each.next();
      long held = flow.held();
      if (flow.hasEnded() || flow.firstPiece() < piece) {
        handOn(flow);
      }
      bytes -= held - flow.held();
      if (flow.isHandedOn() && flow.lastPiece() <= piece - silent) {
        each.remove();
      }
    }
    piece++;
  }

  /**
   * The connections read since the last call.
   *
   * @param cut the fault at its end; null if there is none
   */
  Captures.Summary summary(String cut) {
    Captures.Summary out =
        new Captures.Summary(packets, connections, passedOver, unknownLinks, cut);
    packets = 0;
    connections = 0;
    passedOver = 0;
    unknownLinks = new TreeMap<>();
    return out;
  }
}
