package dev.ironsieve.formats.capture;

import dev.ironsieve.formats.InvalidDocument;
import java.io.IOException;
import java.io.InputStream;
import java.util.function.Consumer;

/**
 * A place on the wire whose packets come as captures of a few seconds each, one after the other. A
 * connection may go through several of them. It is handed on once: at the end of the piece in which
 * it ends, and at the latest at the end of the piece after the one in which it began. Memory is
 * bounded as for a capture: past {@value #MOST_FLOWS} connections at a time, or {@value
 * #MOST_BYTES} bytes of them, the oldest is handed on earlier. Not for several threads.
 */
public final class Tap {
  /** The number of pieces without a packet after which a connection has ended. */
  static final int SILENT_PIECES = 60;

  private static final int MOST_FLOWS = 20_000;
  private static final long MOST_BYTES = 16L << 20;

  private final Flows flows;

  /**
   * @param out takes the connections
   */
  public Tap(Consumer<CapturedConnection> out) {
    flows = new Flows(out, MOST_FLOWS, MOST_BYTES);
  }

  /**
   * Reads a piece. What is wrong with one does not touch those that follow.
   *
   * @param name what to call it in complaints
   * @throws InvalidDocument if it is no capture, or one that goes wrong in the middle; the packets
   *     before that are taken
   */
  public Captures.Summary read(String name, InputStream piece) throws IOException {
    String cut;
    try {
      cut = CaptureReader.read(name, piece, flows::packet);
    } finally {
      flows.nextPiece(SILENT_PIECES);
    }
    return flows.summary(cut);
  }
}
