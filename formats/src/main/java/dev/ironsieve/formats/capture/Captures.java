package dev.ironsieve.formats.capture;

import dev.ironsieve.formats.InvalidDocument;
import java.io.IOException;
import java.io.InputStream;
import java.util.Map;
import java.util.function.Consumer;

/** Splits a capture into connections, in bounded memory. */
public final class Captures {
  private static final int MOST_FLOWS = 100_000;
  private static final long MOST_BYTES = 128L << 20;

  /**
   * The result of reading.
   *
   * @param connections that were handed on
   * @param passedOver packets that are no IP, cut short, or later fragments
   * @param unknownLinks packets of types of link that are not read here, by the type's number
   * @param cut the fault at the end of the file; null if there is none
   */
  public record Summary(
      long packets,
      long connections,
      long passedOver,
      Map<Integer, Long> unknownLinks,
      String cut) {}

  private Captures() {}

  /**
   * Reads a capture and hands on its connections, as a rule in the order in which they begin.
   *
   * @param file what to call the input in complaints
   * @throws InvalidDocument if it is no capture, or one that goes wrong in the middle; what was
   *     handed on before stands
   */
  public static Summary read(String file, InputStream in, Consumer<CapturedConnection> out)
      throws IOException {
    Flows flows = new Flows(out, MOST_FLOWS, MOST_BYTES);
    String cut = CaptureReader.read(file, in, flows::packet);
    flows.handOnAll();
    return flows.summary(cut);
  }
}
