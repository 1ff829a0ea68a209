package dev.ironsieve.bench;

import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.signature.BytePattern;
import dev.ironsieve.core.signature.Condition;
import dev.ironsieve.core.signature.HostPattern;
import dev.ironsieve.core.signature.MovedFile;
import dev.ironsieve.core.signature.Recogniser;
import dev.ironsieve.core.signature.Sight;
import dev.ironsieve.core.signature.Signature;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.capture.CaptureWriter;
import dev.ironsieve.formats.capture.Captures;
import java.io.BufferedOutputStream;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Objects;
import java.util.Random;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** How fast connections are recognised and captures read, and whether any bytes make them fail. */
@Command(
    name = "recognition",
    mixinStandardHelpOptions = true,
    description = {
      "Recognises first packets over 1,000 signatures, beside looking at each of them;",
      "reads a capture made on the spot, beside reading its bytes alone;",
      "and feeds mutated captures to the readers, which must neither fail nor hang."
    })
final class Recognition implements Runnable {
  private static final int TCP = 6;
  private static final int UDP = 17;
  private static final int SIGNATURES = 1000;
  private static final int RUNS = 5;
  private static final int PACKET = 1400;
  private static final double NANOS = 1e9;
  private static final ByteOrder ORDER = ByteOrder.LITTLE_ENDIAN;

  @Option(names = "--megabytes", description = "Of the capture; 1024 if left out.")
  private int megabytes = 1024;

  @Option(names = "--inputs", description = "Mutated inputs; 1,000,000 if left out.")
  private int inputs = 1_000_000;

  private final Random random = new Random(42);

  @Override
  public void run() {
    try {
      recognise();
      readCapture();
      mutate();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static byte[] text(String text) {
    return text.getBytes(StandardCharsets.ISO_8859_1);
  }

  private static String host(int number) {
    return "app%d.%s.example".formatted(number, number % 2 == 0 ? "quay" : "berth");
  }

  /** A TLS hello for a host: recorded from a client, its name replaced by one as long. */
  private static byte[] hello(String host) {
    byte[] name = text(host);
    String head = "16030100%02x0100%04x0303%s20%s000413011302010000%02x";
    String zeros = "00".repeat(32);
    int list = 5 + name.length;
    int extensions = 4 + list;
    int body = 2 + 32 + 33 + 6 + 2 + 2 + extensions;
    String hex =
        head.formatted(body + 4, body, zeros, zeros, extensions)
            + "0000%04x%04x00%04x".formatted(list, list - 2, name.length)
            + HexFormat.of().formatHex(name);
    return HexFormat.of().parseHex(hex);
  }

  private static List<Recogniser.Named> signatures() {
    List<Recogniser.Named> out = new ArrayList<>();
    for (int i = 0; i < SIGNATURES; i++) {
      Condition condition =
          switch (i % 10) {
            case 0 ->
                new Condition.Starts(
                    Condition.Side.CLIENT,
                    BytePattern.parse("%02x %02x ?? 07".formatted(i % 251, i % 13)));
            case 1 -> Condition.Finds.of(Condition.Side.CLIENT, "^VERB" + i + " [a-z]+");
            case 2, 3 ->
                new Condition.Names(Condition.Where.HTTP, HostPattern.parse("*." + host(i)));
            default -> new Condition.Names(Condition.Where.TLS, HostPattern.parse(host(i)));
          };
      boolean byPort = i % 10 < 2;
      ServiceLiteral port = ServiceLiteral.ports(TCP, 1000 + i, 1000 + i);
      out.add(
          new Recogniser.Named(
              "app " + i,
              new Signature(
                  null,
                  byPort
                      ? List.of(condition, new Condition.OnService(List.of(port)))
                      : List.of(condition))));
    }
    return out;
  }

  private byte[] firstBytes(int i) {
    int number = random.nextInt(SIGNATURES);
    return switch (i % 5) {
      case 0 -> text("GET /x HTTP/1.1\r\nHost: www." + host(number) + "\r\nAccept: *\r\n\r\n");
      case 1 -> text("SSH-2.0-quay\r\n");
      default -> hello(host(number));
    };
  }

  private void recognise() {
    List<Recogniser.Named> signatures = signatures();
    Recogniser recogniser = new Recogniser(signatures);
    List<byte[]> firsts = new ArrayList<>();
    for (int i = 0; i < 20_000; i++) {
      firsts.add(firstBytes(i));
    }
    double[] perSecond = new double[RUNS];
    int named = 0;
    for (int run = -3; run < RUNS; run++) {
      long start = System.nanoTime();
      named = 0;
      for (byte[] first : firsts) {
        named += recogniser.recognise(sight(first)).isPresent() ? 1 : 0;
      }
      perSecond[Math.max(0, run)] = firsts.size() * NANOS / (System.nanoTime() - start);
    }
    List<byte[]> few = firsts.subList(0, 500);
    long start = System.nanoTime();
    int alike = 0;
    for (byte[] first : few) {
      Sight sight = sight(first);
      boolean holds =
          signatures.stream()
              .anyMatch(
                  n ->
                      n.signature().conditions().stream()
                          .map(c -> c.evidence(sight))
                          .allMatch(Objects::nonNull));
      alike += holds == recogniser.recognise(sight).isPresent() ? 1 : 0;
    }
    double peer = few.size() * NANOS / (System.nanoTime() - start);
    Arrays.sort(perSecond);
    System.out.printf(
        "recogniser, %d signatures: %,.0f connections/s on one core (median of %d; %,.0f to %,.0f),"
            + " %.0f%% of them named%n",
        SIGNATURES,
        perSecond[RUNS / 2],
        RUNS,
        perSecond[0],
        perSecond[RUNS - 1],
        100.0 * named / firsts.size());
    System.out.printf(
        "  peer, each signature in turn: %,.0f/s; ratio %.0f; alike in %d of %d%n",
        peer, perSecond[RUNS / 2] / peer, alike, few.size());
  }

  private static Sight sight(byte[] first) {
    return Sight.stream(TCP, 443, first, new byte[0]);
  }

  private void readCapture() throws IOException {
    Path file = Files.createTempFile("capture", ".pcap");
    try {
      write(file, (long) megabytes << 20);
      double bytes = Files.size(file);
      Recogniser recogniser = new Recogniser(signatures());
      double[] read = new double[RUNS];
      double[] named = new double[RUNS];
      double[] peer = new double[RUNS];
      Captures.Summary summary = null;
      for (int run = 0; run < RUNS; run++) {
        long start = System.nanoTime();
        drain(file);
        peer[run] = bytes / (1 << 20) * NANOS / (System.nanoTime() - start);
        start = System.nanoTime();
        try (InputStream in = Files.newInputStream(file)) {
          summary = Captures.read(file.toString(), in, c -> {});
        }
        read[run] = bytes / (1 << 20) * NANOS / (System.nanoTime() - start);
        start = System.nanoTime();
        try (InputStream in = Files.newInputStream(file)) {
          Captures.read(file.toString(), in, c -> recogniser.recognise(c.sight()));
        }
        named[run] = bytes / (1 << 20) * NANOS / (System.nanoTime() - start);
      }
      Arrays.sort(read);
      Arrays.sort(named);
      Arrays.sort(peer);
      int middle = RUNS / 2;
      System.out.printf(
          "capture of %,.0f MB, %,d packets, %,d connections: %,.0f MB/s read, %,.0f MB/s read and"
              + " recognised (medians of %d)%n",
          bytes / (1 << 20),
          summary.packets(),
          summary.connections(),
          read[middle],
          named[middle],
          RUNS);
      System.out.printf(
          "  peer, its bytes alone: %,.0f MB/s; ratio %.2f%n",
          peer[middle], read[middle] / peer[middle]);
    } finally {
      Files.delete(file);
    }
  }

  private static void drain(Path file) throws IOException {
    byte[] buffer = new byte[1 << 16];
    try (InputStream in = Files.newInputStream(file)) {
      while (in.read(buffer) >= 0) {
        // Only the reading counts.
      }
    }
  }

  /** Connections of about 40 packets, some at a time. */
  private void write(Path file, long size) throws IOException {
    byte[] bulk = new byte[PACKET];
    random.nextBytes(bulk);
    try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file), 1 << 20)) {
      out.write(CaptureWriter.head(ORDER));
      long written = 0;
      for (int i = 0; written < size; i++) {
        int client = 1 + i % 60_000;
        byte[] first = firstBytes(i);
        written += put(out, client, 1, 0, CaptureWriter.SYN, new byte[0]);
        written += put(out, client, 2, 1, CaptureWriter.ACK, first);
        for (int at = 0; at < 40; at++) {
          int sequence = 1 + at * PACKET;
          written += put(out, -client, 2, sequence, CaptureWriter.ACK, bulk);
        }
      }
    }
  }

  /** A packet from the client, or to it if its number is negative. */
  private static int put(
      OutputStream out, int client, int server, int sequence, int flags, byte[] data)
      throws IOException {
    int port = 1024 + Math.abs(client) % 60_000;
    byte[] packet =
        client > 0
            ? CaptureWriter.ipv4(client, server, TCP, tcp(port, 443, sequence, flags, data))
            : CaptureWriter.ipv4(server, -client, TCP, tcp(443, port, sequence, flags, data));
    out.write(CaptureWriter.head(ORDER, packet.length));
    out.write(packet);
    return packet.length + 16;
  }

  private static byte[] tcp(int from, int to, int sequence, int flags, byte[] data) {
    return CaptureWriter.tcp(from, to, sequence, flags, data);
  }

  private void mutate() throws IOException {
    Recogniser recogniser = new Recogniser(signatures());
    List<byte[]> packets = new ArrayList<>();
    for (int i = 0; i < 5; i++) {
      byte[] data = firstBytes(i);
      packets.add(CaptureWriter.ipv4(1, 2, TCP, tcp(5000 + i, 443, 1, CaptureWriter.ACK, data)));
      packets.add(CaptureWriter.ipv6(1, 2, UDP, CaptureWriter.udp(5000 + i, 53, data)));
    }
    List<byte[]> good =
        List.of(
            CaptureWriter.pcap(ORDER, packets),
            CaptureWriter.pcap(ByteOrder.BIG_ENDIAN, packets),
            CaptureWriter.pcapng(ORDER, packets));
    long slowest = 0;
    int refused = 0;
    long connections = 0;
    for (int i = 0; i < inputs; i++) {
      byte[] bad = good.get(i % 3).clone();
      for (int changes = 1 + random.nextInt(8); changes > 0; changes--) {
        bad[random.nextInt(bad.length)] = (byte) random.nextInt(256);
      }
      byte[] input = i % 4 == 0 ? Arrays.copyOf(bad, random.nextInt(bad.length)) : bad;
      long start = System.nanoTime();
      try {
        connections +=
            Captures.read(
                    "mutated",
                    new ByteArrayInputStream(input),
                    c -> {
                      recogniser.recognise(c.sight());
                      MovedFile.in(c.sight());
                    })
                .connections();
      } catch (InvalidDocument e) {
        refused++;
      }
      slowest = Math.max(slowest, System.nanoTime() - start);
    }
    System.out.printf(
        "%,d mutated captures: %,d refused with a place, %,d connections of the others recognised or"
            + " not; no other exception; the slowest took %.1f ms%n",
        inputs, refused, connections, slowest / 1e6);
  }
}
