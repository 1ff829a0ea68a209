package dev.ironsieve.formats.capture;

import static dev.ironsieve.formats.capture.CaptureWriter.ACK;
import static dev.ironsieve.formats.capture.CaptureWriter.FIN;
import static dev.ironsieve.formats.capture.CaptureWriter.SYN;
import static dev.ironsieve.formats.capture.CaptureWriter.ipv4;
import static dev.ironsieve.formats.capture.CaptureWriter.ipv6;
import static dev.ironsieve.formats.capture.CaptureWriter.tcp;
import static dev.ironsieve.formats.capture.CaptureWriter.udp;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.signature.Sight;
import dev.ironsieve.formats.InvalidDocument;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;

class CapturesTest {
  private static final int TCP = 6;
  private static final int UDP = 17;
  private static final ByteOrder BIG = ByteOrder.BIG_ENDIAN;
  private static final ByteOrder LITTLE = ByteOrder.LITTLE_ENDIAN;

  private record Read(List<CapturedConnection> connections, Captures.Summary summary) {}

  private static Read read(byte[] capture) {
    List<CapturedConnection> out = new ArrayList<>();
    try {
      return new Read(out, Captures.read("c", new ByteArrayInputStream(capture), out::add));
    } catch (IOException e) {
      throw new AssertionError(e);
    }
  }

  private static byte[] text(String text) {
    return text.getBytes(StandardCharsets.ISO_8859_1);
  }

  private static final byte[] REQUEST = text("GET / HTTP/1.1\r\nHost: a.example\r\n\r\n");

  private static List<byte[]> exchange() {
    return List.of(
        ipv4(1, 2, TCP, tcp(5000, 80, 99, SYN, new byte[0])),
        ipv4(2, 1, TCP, tcp(80, 5000, 7, SYN | ACK, new byte[0])),
        ipv4(1, 2, TCP, tcp(5000, 80, 100, ACK, REQUEST)),
        ipv4(2, 1, TCP, tcp(80, 5000, 8, ACK, text("HTTP/1.1 200 OK\r\n"))),
        ipv6(9, 8, UDP, udp(4000, 53, text("hello"))),
        ipv6(8, 9, UDP, udp(53, 4000, text("there"))));
  }

  @Test
  void readsBothFormatsInBothByteOrders() {
    for (byte[] capture :
        List.of(
            CaptureWriter.pcap(BIG, exchange()),
            CaptureWriter.pcap(LITTLE, exchange()),
            CaptureWriter.pcapng(BIG, exchange()),
            CaptureWriter.pcapng(LITTLE, exchange()))) {
      Read read = read(capture);
      assertThat(read.summary.cut()).isNull();
      assertThat(read.summary.packets()).isEqualTo(6);
      assertThat(read.connections).hasSize(2);
      CapturedConnection web = read.connections.getFirst();
      assertThat(web.from()).hasToString("10.0.0.1");
      assertThat(web.toPort()).isEqualTo(80);
      assertThat(web.packets()).isEqualTo(4);
      assertThat(web.sight().http().host()).isEqualTo("a.example");
      CapturedConnection other = read.connections.getLast();
      assertThat(other.to()).hasToString("2001:db8::8");
      assertThat(other.sight().port()).isEqualTo(53);
    }
  }

  @Test
  void sectionsOfOnePcapngMayDifferInByteOrder() throws IOException {
    ByteArrayOutputStream both = new ByteArrayOutputStream();
    both.write(CaptureWriter.pcapng(LITTLE, exchange().subList(0, 4)));
    both.write(CaptureWriter.pcapng(BIG, exchange().subList(4, 6)));
    assertThat(read(both.toByteArray()).connections).hasSize(2);
  }

  @Test
  void theServersFirstPacketTellsWhoOpened() {
    List<byte[]> packets = new ArrayList<>(exchange().subList(1, 4));
    CapturedConnection web = read(CaptureWriter.pcap(BIG, packets)).connections.getFirst();
    assertThat(web.from()).hasToString("10.0.0.1");
    assertThat(web.toPort()).isEqualTo(80);
  }

  @Test
  void aConnectionBetweenTheSameEndsBeginsAnew() {
    List<byte[]> packets = new ArrayList<>(exchange().subList(0, 4));
    packets.add(ipv4(1, 2, TCP, tcp(5000, 80, 140, FIN, new byte[0])));
    packets.add(ipv4(1, 2, TCP, tcp(5000, 80, 4000, SYN, new byte[0])));
    packets.add(ipv4(1, 2, TCP, tcp(5000, 80, 4001, ACK, text("other"))));
    List<CapturedConnection> read = read(CaptureWriter.pcap(BIG, packets)).connections;
    assertThat(read).hasSize(2);
    assertThat(read.getFirst().sight().http()).isNotNull();
    assertThat(read.getLast().sight().http()).isNull();
  }

  /** Any order, doubled, cut otherwise, across the turn of the sequence numbers. */
  @Test
  void aStreamIsPutTogetherFromSegmentsInAnyOrder() {
    Random random = new Random(17);
    for (int round = 0; round < 500; round++) {
      byte[] whole = new byte[1 + random.nextInt(random.nextInt(10) == 0 ? 20_000 : 3000)];
      random.nextBytes(whole);
      int first = random.nextBoolean() ? -random.nextInt(whole.length + 1) : random.nextInt();
      List<int[]> pieces = new ArrayList<>();
      for (int at = 0; at < whole.length; ) {
        int end = Math.min(whole.length, at + 1 + random.nextInt(1400));
        pieces.add(new int[] {at, end});
        if (random.nextInt(4) == 0) {
          int back = Math.max(0, at - random.nextInt(900));
          pieces.add(new int[] {back, Math.min(whole.length, end + random.nextInt(300))});
        }
        at = end;
      }
      boolean gap = random.nextInt(3) == 0 && pieces.size() > 2;
      int[] lost = gap ? pieces.remove(random.nextInt(pieces.size())) : null;
      Collections.shuffle(pieces, random);
      Beginning side = new Beginning();
      side.from(first);
      boolean[] there = new boolean[whole.length];
      for (int[] piece : pieces) {
        side.add(first + piece[0], whole, piece[0], piece[1] - piece[0]);
        Arrays.fill(there, piece[0], piece[1], true);
      }
      int expected = 0;
      while (expected < Math.min(whole.length, Sight.MAX_BYTES) && there[expected]) {
        expected++;
      }
      assertThat(side.bytes())
          .as("round %d, lost %s", round, Arrays.toString(lost))
          .isEqualTo(Arrays.copyOf(whole, expected));
    }
  }

  @Test
  void ofBytesThatComeTwiceTheFirstCount() {
    Beginning side = new Beginning();
    side.from(1);
    side.add(3, text("cd"), 0, 2);
    side.add(1, text("abXYe"), 0, 5);
    side.add(1, text("zzzzzf"), 0, 6);
    assertThat(side.bytes()).isEqualTo(text("abcdef"));
  }

  @Test
  void aCaptureCutInMidPacketIsReadUpToThere() {
    byte[] whole = CaptureWriter.pcap(LITTLE, exchange());
    Read cut = read(Arrays.copyOf(whole, whole.length - 3));
    assertThat(cut.summary.packets()).isEqualTo(5);
    assertThat(cut.summary.cut())
        .isEqualTo("packet 6 is cut off at byte %d: 3 more were promised", whole.length - 3);
    byte[] ng = CaptureWriter.pcapng(BIG, exchange());
    assertThat(read(Arrays.copyOf(ng, ng.length - 3)).summary.cut())
        .contains("behind packet 5 is cut off");
    assertThat(read(Arrays.copyOf(whole, 10)).summary.cut()).contains("head of the file");
  }

  @Test
  void saysWhereAFileIsNoCapture() {
    assertThatThrownBy(() -> read(new byte[0]))
        .isInstanceOf(InvalidDocument.class)
        .hasMessageContaining("expected a capture, found nothing");
    assertThatThrownBy(() -> read(text("GET / HTTP/1.1")))
        .hasMessageContaining("expected pcap or pcapng, found a file that begins with 47455420");
    byte[] huge = CaptureWriter.pcap(BIG, exchange());
    ByteBuffer.wrap(huge).putInt(24 + 8, -1);
    assertThatThrownBy(() -> read(huge))
        .hasMessageContaining("c: byte 40")
        .hasMessageContaining("packet 1 of 0 to 1048576 bytes, found 4294967295");
    byte[] block = CaptureWriter.pcapng(LITTLE, exchange());
    block[CaptureWriter.section(LITTLE).length + 4] = 13;
    assertThatThrownBy(() -> read(block)).hasMessageContaining("a multiple of 4, found 13");
  }

  @Test
  void linksThatAreNotReadAreCounted() {
    byte[] capture = CaptureWriter.pcap(BIG, exchange());
    capture[23] = 105;
    Read read = read(capture);
    assertThat(read.connections).isEmpty();
    assertThat(read.summary.unknownLinks()).containsExactly(Map.entry(105, 6L));
  }

  @Test
  void memoryIsBoundedAndTheOldestIsHandedOnFirst() {
    List<byte[]> packets = new ArrayList<>();
    for (int i = 0; i < 120_000; i++) {
      packets.add(ipv4(i, 2, UDP, udp(4000, 53, new byte[] {1})));
    }
    Read read = read(CaptureWriter.pcap(BIG, packets));
    assertThat(read.connections).hasSize(120_000);
    assertThat(read.connections.getFirst().from()).hasToString("10.0.0.0");
    assertThat(read.connections.getLast().from()).hasToString("10.1.212.191");
  }

  @Test
  void anyBytesAreReadOrRefusedAndNeverFail() {
    Random random = new Random(29);
    List<byte[]> good =
        List.of(
            CaptureWriter.pcap(BIG, exchange()),
            CaptureWriter.pcap(LITTLE, exchange()),
            CaptureWriter.pcapng(LITTLE, exchange()));
    int refused = 0;
    for (int i = 0; i < 30_000; i++) {
      byte[] bad = good.get(i % 3).clone();
      for (int changes = 1 + random.nextInt(6); changes > 0; changes--) {
        bad[random.nextInt(bad.length)] = (byte) random.nextInt(256);
      }
      if (i % 3 == 0) {
        ByteBuffer.wrap(bad).putInt(20, new int[] {0, 1, 101, 113, 276}[random.nextInt(5)]);
      }
      try {
        read(bad).connections.forEach(c -> c.sight().tls());
      } catch (InvalidDocument e) {
        assertThat(e.getMessage()).contains("expected");
        refused++;
      }
    }
    assertThat(refused).isBetween(100, 29_000);
  }
}
