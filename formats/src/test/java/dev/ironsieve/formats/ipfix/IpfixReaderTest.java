package dev.ironsieve.formats.ipfix;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.formats.ipfix.FlowRecord.Event;
import java.nio.ByteBuffer;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class IpfixReaderTest {
  private static final Instant NOW = Instant.parse("2026-12-01T10:00:00Z");
  private static final int DOMAIN = 5;

  private final IpfixReader reader = new IpfixReader();
  private int sequence;

  private static FlowRecord flow(Random random) {
    boolean four = random.nextBoolean();
    boolean ports = random.nextBoolean();
    return new FlowRecord(
        NOW.minusMillis(random.nextInt(100_000)),
        NOW.plusMillis(random.nextInt(1_000)),
        Address.parse(four ? "10.0.0." + random.nextInt(256) : "2001:db8::" + random.nextInt(99)),
        Address.parse(four ? "203.0.113.7" : "2001:db8:1::7"),
        ports ? 6 : four ? 1 : 58,
        ports ? random.nextInt(65_536) : 0,
        ports ? random.nextInt(65_536) : 0,
        ports ? 0 : random.nextInt(65_536),
        random.nextInt(1_000),
        random.nextLong(Long.MAX_VALUE),
        random.nextBoolean() ? Event.DELETED : Event.DENIED,
        "é".repeat(random.nextInt(90)),
        random.nextBoolean() ? "" : "Lanternreel: view");
  }

  private static List<FlowRecord> flows(Random random) {
    List<FlowRecord> out = new ArrayList<>();
    for (int i = 1 + random.nextInt(40); i > 0; i--) {
      out.add(flow(random));
    }
    return out;
  }

  @Test
  void readsWhatTheWriterWrites() {
    Random random = new Random(1);
    IpfixWriter writer = new IpfixWriter(DOMAIN);
    List<FlowRecord> written = new ArrayList<>();
    List<FlowRecord> read = new ArrayList<>();
    for (int round = 0; round < 50; round++) {
      List<FlowRecord> some = flows(random);
      written.addAll(some);
      for (byte[] message : writer.messages(some, NOW, round % 7 == 0)) {
        IpfixMessage one = reader.read(message);
        assertThat(one.domain()).isEqualTo(DOMAIN);
        assertThat(one.sentAt()).isEqualTo(NOW);
        assertThat(one.lost() + one.others() + one.unread()).isZero();
        read.addAll(one.flows());
      }
    }
    assertThat(read).isEqualTo(written);
  }

  @Test
  void aGapInTheNumbersIsLostAndARestartIsNot() {
    IpfixWriter writer = new IpfixWriter(DOMAIN);
    Random random = new Random(2);
    List<FlowRecord> three = List.of(flow(random), flow(random), flow(random));
    reader.read(writer.messages(three, NOW, true).getFirst());
    writer.messages(three, NOW, false); // which the network loses
    assertThat(reader.read(writer.messages(three, NOW, false).getFirst()).lost()).isEqualTo(3);
    assertThat(reader.read(new IpfixWriter(DOMAIN).messages(three, NOW, true).getFirst()).lost())
        .isZero();
  }

  @Test
  void flowsWithoutATemplateAreUnread() {
    IpfixWriter writer = new IpfixWriter(DOMAIN);
    List<FlowRecord> flows = List.of(flow(new Random(3)));
    assertThat(reader.read(writer.messages(flows, NOW, false).getFirst()).unread()).isEqualTo(1);
    assertThat(reader.read(writer.messages(flows, NOW, true).getFirst()).flows()).isEqualTo(flows);
  }

  /** A message of sets, each with its id. */
  private byte[] message(Object... idsAndSets) {
    ByteBuffer out = ByteBuffer.allocate(2_000);
    out.putShort((short) 10).putShort((short) 0).putInt((int) NOW.getEpochSecond());
    out.putInt(sequence).putInt(DOMAIN);
    for (int i = 0; i < idsAndSets.length; i += 2) {
      byte[] set = (byte[]) idsAndSets[i + 1];
      out.putShort((short) (int) idsAndSets[i]).putShort((short) (set.length + 4)).put(set);
    }
    byte[] bytes = new byte[out.position()];
    out.putShort(2, (short) bytes.length);
    out.flip().get(bytes);
    return bytes;
  }

  private static byte[] shorts(int... values) {
    ByteBuffer out = ByteBuffer.allocate(2 * values.length);
    for (int value : values) {
      out.putShort((short) value);
    }
    return out.array();
  }

  @Test
  void shortNumbersForeignElementsSecondsAndPaddingAreRead() {
    byte[] template = // IPv4 ends, protocol, 1 byte of packets, start in seconds, a foreign element
        shorts(300, 6, 8, 4, 12, 4, 4, 1, 2, 1, 150, 4, 0x8000 | 8, 4, 0, 32_473, 0 /* padding */);
    ByteBuffer record = ByteBuffer.allocate(4 + 4 + 1 + 1 + 4 + 4 + 3);
    record.putInt(0x0a000001).putInt(0x0a000002).put((byte) 17).put((byte) 200);
    record.putInt((int) NOW.getEpochSecond() - 60).putInt(0x7f7f7f7f);
    FlowRecord flow = reader.read(message(2, template, 300, record.array())).flows().getFirst();
    assertThat(flow.from()).isEqualTo(Address.parse("10.0.0.1"));
    assertThat(flow.protocol()).isEqualTo(17);
    assertThat(flow.packets()).isEqualTo(200);
    assertThat(flow.start()).isEqualTo(NOW.minusSeconds(60));
    assertThat(flow.end()).isEqualTo(NOW);
    assertThat(flow.event()).isNull();
  }

  @Test
  void optionsAreCountedAndAWithdrawnTemplateIsForgotten() {
    byte[] options = shorts(400, 2, 1, 149, 4, 160, 8);
    byte[] template = shorts(300, 2, 8, 4, 12, 4);
    IpfixMessage first =
        reader.read(message(3, options, 400, new byte[12], 2, template, 300, new byte[16]));
    assertThat(first.others()).isEqualTo(1);
    assertThat(first.flows()).hasSize(2);
    assertThat(reader.read(message(2, shorts(300, 0), 300, new byte[8])).unread()).isEqualTo(1);
  }

  @Test
  void aWrongMessageSaysWhereAndWhatWasExpected() {
    byte[] good = message(2, shorts(300, 1, 8, 4));
    byte[] version = good.clone();
    version[1] = 9;
    assertWrong(version, 0, "version 10", "9");
    byte[] longer = good.clone();
    longer[3]++;
    assertWrong(longer, 2, "the length of the message, 28", "29");
    assertWrong(new byte[7], 0, "a header of 16 bytes", "7 bytes");
    assertWrong(message(7, new byte[0]), 16, "a set of templates or data", "set 7");
    assertWrong(
        message(2, shorts(300, 2, 8, 4)), 28, "a field of the template", "the end of the set");
    assertWrong(message(2, shorts(9, 1, 8, 4)), 20, "a template from 256", "template 9");
    assertWrong(
        message(2, shorts(300, 1, 8, 0)),
        20,
        "a template whose records have bytes",
        "fields of length 0");
    assertWrong(message(2, shorts(300, 999)), 20, "at most 300 fields", "999 fields");
    byte[] set = good.clone();
    set[19] = 60;
    assertWrong(set, 18, "a length of the set from 4 to 12", "60");
    byte[] text = message(2, shorts(300, 1, 371, 65_535), 300, new byte[] {9, 'a'});
    assertWrong(text, 33, "9 bytes of a value", "1 bytes to the set's end");
  }

  private void assertWrong(byte[] message, int offset, String expected, String found) {
    assertThatThrownBy(() -> reader.read(message))
        .isInstanceOfSatisfying(
            InvalidText.class,
            e -> {
              assertThat(e.offset()).isEqualTo(offset);
              assertThat(e.expected()).isEqualTo(expected);
              assertThat(e.found()).isEqualTo(found);
            });
  }

  /** Damaged messages are read or refused with a place in them, and nothing else happens. */
  @Test
  void noBytesDoMoreThanBeRefused() {
    Random random = new Random(4);
    int refused = 0;
    for (int i = 0; i < 100_000; i++) {
      List<byte[]> messages =
          new IpfixWriter(random.nextInt()).messages(flows(random).subList(0, 1), NOW, true);
      byte[] bytes = messages.getFirst();
      for (int changes = 1 + random.nextInt(4); changes > 0; changes--) {
        bytes[random.nextInt(bytes.length)] = (byte) random.nextInt();
      }
      try {
        assertThat(reader.read(bytes).flows().size()).isLessThan(bytes.length);
      } catch (InvalidText e) {
        assertThat(e.offset()).isBetween(0, bytes.length);
        refused++;
      }
    }
    assertThat(refused).isBetween(10_000, 95_000);
  }

  @Test
  void anEndlessRowOfTemplatesTakesNoMoreMemory() {
    for (int domain = 0; domain < 3 * IpfixReader.MOST_DOMAINS; domain++) {
      for (int id = 0; id < 3 * IpfixReader.MOST_TEMPLATES; id++) {
        byte[] one = message(2, shorts(256 + id, 1, 8, 4));
        ByteBuffer.wrap(one).putInt(12, domain);
        reader.read(one);
      }
    }
    byte[] early = message(256, new byte[4]);
    byte[] late = message(256 + 3 * IpfixReader.MOST_TEMPLATES - 1, new byte[4]);
    ByteBuffer.wrap(early).putInt(12, 3 * IpfixReader.MOST_DOMAINS - 1);
    ByteBuffer.wrap(late).putInt(12, 3 * IpfixReader.MOST_DOMAINS - 1);
    assertThat(reader.read(early).unread()).isEqualTo(1);
    assertThat(reader.read(late).unread()).isZero();
  }
}
