package dev.ironsieve.gateway;

import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.capture.CapturedConnection;
import dev.ironsieve.formats.capture.Tap;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.time.Duration;
import java.util.function.Consumer;

/**
 * Packets of a network interface, which tcpdump writes as one endless capture. It is cut into
 * pieces, at whose end the connections are handed on.
 */
final class LiveCapture implements Runnable, AutoCloseable {
  private static final Duration PIECE = Duration.ofSeconds(2);
  private static final int FILE_HEADER = 24; // bytes, of pcap
  private static final int PACKET_HEADER = 16;
  private static final int MOST_PACKET = 1 << 18;
  private static final int MOST_PIECE = 32 << 20; // bytes; what comes beyond is dropped
  private static final int MICROS = 0xd4c3b2a1; // the magic number, read in the other order

  private final Process tcpdump;
  private final Consumer<CapturedConnection> out;
  private final Consumer<String> log;
  private final ByteArrayOutputStream piece = new ByteArrayOutputStream();
  private byte[] header; // of the capture; null before it came
  private long dropped;

  /**
   * @param device name of the interface
   * @param filter of tcpdump; empty for all packets
   */
  LiveCapture(String device, String filter, Consumer<CapturedConnection> out, Consumer<String> log)
      throws IOException {
    this.out = out;
    this.log = log;
    ProcessBuilder command =
        new ProcessBuilder("tcpdump", "-i", device, "-U", "-n", "-s", "4096", "-w", "-");
    if (!filter.isBlank()) {
      command.command().add(filter);
    }
    tcpdump = command.redirectError(ProcessBuilder.Redirect.INHERIT).start();
  }

  /** Reads packets until tcpdump ends. */
  private void read() {
    try (DataInputStream in = new DataInputStream(tcpdump.getInputStream())) {
      byte[] first = in.readNBytes(FILE_HEADER);
      if (first.length < FILE_HEADER) {
        throw new EOFException("no capture");
      }
      synchronized (piece) {
        header = first;
      }
      ByteOrder order =
          ByteBuffer.wrap(first).getInt() == MICROS
              ? ByteOrder.LITTLE_ENDIAN
              : ByteOrder.BIG_ENDIAN;
      byte[] packet = new byte[PACKET_HEADER];
      while (true) {
        in.readFully(packet);
        int length = ByteBuffer.wrap(packet).order(order).getInt(8);
        if (length < 0 || length > MOST_PACKET) {
          throw new IOException("a packet of " + length + " bytes");
        }
        byte[] bytes = in.readNBytes(length);
        synchronized (piece) {
          if (piece.size() > MOST_PIECE) {
            dropped++;
          } else {
            piece.writeBytes(packet);
            piece.writeBytes(bytes);
          }
        }
      }
    } catch (IOException e) {
      log.accept("No more packets: tcpdump ended (" + e.getMessage() + ").");
    }
  }

  @Override
  public void run() {
    Thread.ofPlatform().daemon().name("tcpdump").start(this::read);
    Tap tap = new Tap(out);
    try {
      while (true) {
        Thread.sleep(PIECE);
        byte[] next = next();
        if (next != null) {
          try {
            tap.read("tcpdump", new ByteArrayInputStream(next));
          } catch (InvalidDocument e) {
            log.accept("Packets were not read: " + e.getMessage());
          }
        }
      }
    } catch (IOException e) {
      throw new UncheckedIOException("reading from memory", e);
    } catch (InterruptedException stop) {
      // The program ends.
    }
  }

  private byte[] next() {
    synchronized (piece) {
      if (header == null) {
        return null;
      }
      if (dropped > 0) {
        log.accept(dropped + " packets dropped: more came than are kept.");
        dropped = 0;
      }
      ByteBuffer whole = ByteBuffer.allocate(header.length + piece.size());
      whole.put(header).put(piece.toByteArray());
      piece.reset();
      return whole.array();
    }
  }

  @Override
  public void close() {
    tcpdump.destroy();
  }
}
