package dev.ironsieve.formats.ipfix;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.sets.Address;
import dev.ironsieve.formats.ipfix.FlowRecord.Event;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** IPFIX messages, read back by their own templates alone. */
class IpfixWriterTest {
  private static final Instant NOW = Instant.parse("2026-12-01T10:00:00Z");

  private static FlowRecord flow(String from, String to, String person, long bytes) {
    return new FlowRecord(
        NOW.minusMillis(1_500),
        NOW,
        Address.parse(from),
        Address.parse(to),
        6,
        50_000,
        443,
        0,
        7,
        bytes,
        Event.DELETED,
        person,
        "Lanternreel: view");
  }

  /** Reads messages as a collector does. */
  private static final class Collector {
    private final Map<Integer, List<int[]>> templates = new HashMap<>();
    private final List<Map<Integer, byte[]>> records = new ArrayList<>();
    private long expected;

    void take(byte[] message) {
      ByteBuffer in = ByteBuffer.wrap(message);
      assertThat(in.getShort()).isEqualTo((short) 10);
      assertThat(in.getShort()).isEqualTo((short) message.length);
      assertThat(in.getInt()).isEqualTo((int) NOW.getEpochSecond());
      assertThat(in.getInt()).as("sequence").isEqualTo((int) expected);
      assertThat(in.getInt()).isEqualTo(5);
      while (in.hasRemaining()) {
        int begin = in.position();
        int id = Short.toUnsignedInt(in.getShort());
        int end = begin + Short.toUnsignedInt(in.getShort());
        while (in.position() < end) {
          if (id == 2) {
            readTemplate(in);
          } else {
            readRecord(in, templates.get(id));
          }
        }
        assertThat(in.position()).isEqualTo(end);
      }
    }

    private void readTemplate(ByteBuffer in) {
      int id = Short.toUnsignedInt(in.getShort());
      List<int[]> fields = new ArrayList<>();
      for (int left = in.getShort(); left > 0; left--) {
        fields.add(
            new int[] {Short.toUnsignedInt(in.getShort()), Short.toUnsignedInt(in.getShort())});
      }
      templates.put(id, fields);
    }

    private void readRecord(ByteBuffer in, List<int[]> fields) {
      Map<Integer, byte[]> out = new HashMap<>();
      for (int[] field : fields) {
        byte[] value = new byte[field[1] == 65_535 ? Byte.toUnsignedInt(in.get()) : field[1]];
        in.get(value);
        out.put(field[0], value);
      }
      records.add(out);
      expected++;
    }
  }

  private static String text(byte[] bytes) {
    return new String(bytes, StandardCharsets.UTF_8);
  }

  @Test
  void aCollectorReadsTheRecordsByTheTemplates() {
    IpfixWriter writer = new IpfixWriter(5);
    List<byte[]> messages =
        writer.messages(
            List.of(
                flow("10.1.0.9", "203.0.113.7", "maya.lind", 1_000),
                flow("2001:db8::9", "2001:db8:1::7", "", 2_000)),
            NOW,
            true);
    assertThat(messages).hasSize(1);
    Collector collector = new Collector();
    collector.take(messages.getFirst());
    Map<Integer, byte[]> first = collector.records.getFirst();
    assertThat(first.get(8)).isEqualTo(new byte[] {10, 1, 0, 9});
    assertThat(first.get(12)).isEqualTo(new byte[] {(byte) 203, 0, 113, 7});
    assertThat(ByteBuffer.wrap(first.get(152)).getLong()).isEqualTo(NOW.toEpochMilli() - 1_500);
    assertThat(ByteBuffer.wrap(first.get(153)).getLong()).isEqualTo(NOW.toEpochMilli());
    assertThat(first.get(4)).isEqualTo(new byte[] {6});
    assertThat(Short.toUnsignedInt(ByteBuffer.wrap(first.get(7)).getShort())).isEqualTo(50_000);
    assertThat(ByteBuffer.wrap(first.get(11)).getShort()).isEqualTo((short) 443);
    assertThat(ByteBuffer.wrap(first.get(2)).getLong()).isEqualTo(7);
    assertThat(ByteBuffer.wrap(first.get(1)).getLong()).isEqualTo(1_000);
    assertThat(first.get(233)).isEqualTo(new byte[] {2});
    assertThat(text(first.get(371))).isEqualTo("maya.lind");
    assertThat(text(first.get(96))).isEqualTo("Lanternreel: view");
    Map<Integer, byte[]> second = collector.records.getLast();
    assertThat(ByteBuffer.wrap(second.get(27)).getLong()).isEqualTo(0x2001_0db8_0000_0000L);
    assertThat(second.get(371)).isEmpty();
  }

  @Test
  void manyFlowsFillMessagesThatFitIntoOnePacket() {
    IpfixWriter writer = new IpfixWriter(5);
    Random random = new Random(1);
    Collector collector = new Collector();
    long flows = 0;
    for (int round = 0; round < 20; round++) {
      List<FlowRecord> some = new ArrayList<>();
      for (int i = random.nextInt(60); i > 0; i--) {
        boolean four = random.nextBoolean();
        some.add(
            flow(
                four ? "10.0.0.1" : "2001:db8::1",
                four ? "10.0.0.2" : "2001:db8::2",
                "é".repeat(random.nextInt(150)),
                flows++));
      }
      for (byte[] message : writer.messages(some, NOW, round % 5 == 0)) {
        assertThat(message.length).isLessThanOrEqualTo(IpfixWriter.MAX_BYTES);
        collector.take(message);
      }
    }
    assertThat(collector.records).hasSize((int) flows);
    for (int i = 0; i < flows; i++) {
      Map<Integer, byte[]> record = collector.records.get(i);
      assertThat(ByteBuffer.wrap(record.get(1)).getLong()).isEqualTo(i);
      assertThat(text(record.get(371))).matches("é{0,100}");
    }
  }

  @Test
  void nothingToSayIsNoMessage() {
    assertThat(new IpfixWriter(5).messages(List.of(), NOW, false)).isEmpty();
    assertThat(new IpfixWriter(5).messages(List.of(), NOW, true)).hasSize(1);
  }
}
