package dev.ironsieve.formats.capture;

import static dev.ironsieve.formats.capture.CaptureWriter.ACK;
import static dev.ironsieve.formats.capture.CaptureWriter.FIN;
import static dev.ironsieve.formats.capture.CaptureWriter.SYN;
import static dev.ironsieve.formats.capture.CaptureWriter.ipv4;
import static dev.ironsieve.formats.capture.CaptureWriter.tcp;
import static dev.ironsieve.formats.capture.CaptureWriter.udp;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.formats.InvalidDocument;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class TapTest {
  private static final int TCP = 6;
  private static final int UDP = 17;

  private final List<CapturedConnection> told = new ArrayList<>();
  private final Tap tap = new Tap(told::add);

  private static byte[] capture(List<byte[]> packets) {
    return CaptureWriter.pcap(ByteOrder.LITTLE_ENDIAN, packets);
  }

  private Captures.Summary piece(List<byte[]> packets) throws IOException {
    return tap.read("piece", new ByteArrayInputStream(capture(packets)));
  }

  private static byte[] text(String text) {
    return text.getBytes(StandardCharsets.US_ASCII);
  }

  /** A connection of one client, whose number is its port, in order. */
  private static List<byte[]> connection(int number) {
    int port = 5000 + number;
    if (number % 3 == 0) {
      return List.of(
          ipv4(number, 250, UDP, udp(port, 53, text("ask " + number))),
          ipv4(250, number, UDP, udp(53, port, text("told " + number))));
    }
    List<byte[]> out = new ArrayList<>();
    out.add(ipv4(number, 250, TCP, tcp(port, 80, 99, SYN, new byte[0])));
    out.add(ipv4(250, number, TCP, tcp(80, port, 7, SYN | ACK, new byte[0])));
    out.add(ipv4(number, 250, TCP, tcp(port, 80, 100, ACK, text("GET /" + number))));
    out.add(ipv4(number, 250, TCP, tcp(port, 80, 106, ACK, text(" and more"))));
    out.add(ipv4(250, number, TCP, tcp(80, port, 8, ACK, text("answer " + number))));
    if (number % 3 == 1) {
      out.add(ipv4(number, 250, TCP, tcp(port, 80, 115, FIN | ACK, new byte[0])));
    }
    return out;
  }

  private static String shown(CapturedConnection c) {
    return c.from()
        + " "
        + c.service()
        + " "
        + new String(c.sight().client(), StandardCharsets.US_ASCII)
        + " / "
        + new String(c.sight().server(), StandardCharsets.US_ASCII);
  }

  @Test
  void piecesAreReadLikeOneCapture() throws IOException {
    Random random = new Random(4);
    for (int round = 0; round < 200; round++) {
      told.clear();
      Tap anew = new Tap(told::add);
      List<byte[]> all = new ArrayList<>();
      List<List<byte[]>> pieces = new ArrayList<>();
      for (int i = 0; i < 6; i++) {
        pieces.add(new ArrayList<>());
      }
      for (int number = 1; number <= 20; number++) {
        int first = random.nextInt(5); // each lies in two pieces, the last of which follows
        List<byte[]> packets = connection(number);
        int cut = random.nextInt(packets.size() + 1);
        pieces.get(first).addAll(packets.subList(0, cut));
        pieces.get(first + 1).addAll(packets.subList(cut, packets.size()));
        all.addAll(packets);
      }
      for (List<byte[]> piece : pieces) {
        anew.read("piece", new ByteArrayInputStream(capture(piece)));
      }
      anew.read("piece", new ByteArrayInputStream(capture(List.of())));
      List<String> whole = new ArrayList<>();
      Captures.read("all", new ByteArrayInputStream(capture(all)), c -> whole.add(shown(c)));
      assertThat(told)
          .extracting(TapTest::shown)
          .as("round %d", round)
          .containsExactlyInAnyOrderElementsOf(whole)
          .hasSize(20);
    }
  }

  @Test
  void aConnectionIsToldWhenItEndsOrAPieceLater() throws IOException {
    piece(connection(1));
    assertThat(told).hasSize(1); // ended
    piece(connection(2));
    assertThat(told).hasSize(1);
    Captures.Summary summary = piece(List.of());
    assertThat(told).hasSize(2);
    assertThat(summary.packets()).isZero();
    assertThat(summary.connections()).isEqualTo(1);
  }

  @Test
  void aLongConnectionIsToldOnceAndASilentOneAnew() throws IOException {
    piece(connection(2));
    int port = 5002;
    for (int i = 0; i < 2 * Tap.SILENT_PIECES; i++) {
      piece(List.of(ipv4(2, 250, TCP, tcp(port, 80, 115 + i, ACK, text("x")))));
    }
    assertThat(told).hasSize(1);
    assertThat(shown(told.getFirst())).endsWith("GET /2 and morex / answer 2");
    for (int i = 0; i <= Tap.SILENT_PIECES; i++) {
      piece(List.of());
    }
    piece(connection(2));
    piece(List.of());
    assertThat(told).hasSize(2);
  }

  @Test
  void aPieceThatGoesWrongLeavesTheOthersWhole() throws IOException {
    List<byte[]> packets = connection(2);
    piece(packets.subList(0, 3));
    byte[] broken = text("no capture at all");
    assertThatThrownBy(() -> tap.read("tap", new ByteArrayInputStream(broken)))
        .isInstanceOf(InvalidDocument.class)
        .hasMessageContaining("tap: byte");
    byte[] cut = capture(packets.subList(3, 5));
    String complaint = tap.read("tap", new ByteArrayInputStream(cut, 0, cut.length - 3)).cut();
    assertThat(complaint).contains("is cut off at byte");
    assertThat(told).extracting(TapTest::shown).containsExactly("10.0.0.2 tcp/80 GET /2 / ");
  }
}
