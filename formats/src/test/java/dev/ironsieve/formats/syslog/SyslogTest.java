package dev.ironsieve.formats.syslog;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.formats.syslog.DecisionRecord.Origin;
import dev.ironsieve.formats.syslog.SyslogMessage.Element;
import dev.ironsieve.formats.syslog.SyslogMessage.Parameter;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Messages of RFC 5424 and frames of RFC 6587, both ways. */
class SyslogTest {
  private static final Instant NOW = Instant.parse("2026-12-01T09:00:02Z");

  private static final DecisionRecord DECISION =
      new DecisionRecord(
          new Origin("North \"terminal\"", "k3f9", 12),
          "end",
          7,
          "h12",
          Verdict.REJECT,
          "h40",
          Verdict.DROP,
          Instant.parse("2026-12-01T09:00:00.123456Z"),
          1500,
          12,
          8_400,
          "terminals",
          Address.parse("10.4.2.9"),
          "internet",
          Address.parse("2001:db8::7"),
          6,
          443,
          50_000,
          "Maya Lindqvist",
          null,
          "www.quay.example",
          "Lanternreel: view [hd]",
          null,
          "content");

  /** The examples of RFC 5424, section 6.5. */
  @Test
  void readsTheExamplesOfTheRfc() {
    SyslogMessage one =
        SyslogReader.read(
            "<34>1 2003-10-11T22:14:15.003Z mymachine.example.com su - ID47 - "
                + "\uFEFF'su root' failed for lonvick on /dev/pts/8");
    assertThat(one.facility()).isEqualTo(4);
    assertThat(one.severity()).isEqualTo(2);
    assertThat(one.at()).isEqualTo(Instant.parse("2003-10-11T22:14:15.003Z"));
    assertThat(one.process()).isNull();
    assertThat(one.text()).isEqualTo("'su root' failed for lonvick on /dev/pts/8");
    SyslogMessage two =
        SyslogReader.read(
            "<165>1 2003-08-24T05:14:15.000003-07:00 192.0.2.1 myproc 8710 - - %% It's time.");
    assertThat(two.at()).isEqualTo(Instant.parse("2003-08-24T12:14:15.000003Z"));
    assertThat(two.process()).isEqualTo("8710");
    SyslogMessage four =
        SyslogReader.read(
            "<165>1 2003-10-11T22:14:15.003Z mymachine.example.com evntslog - ID47"
                + " [exampleSDID@32473 iut=\"3\" eventSource=\"Application\" eventID=\"1011\"]"
                + "[examplePriority@32473 class=\"high\"]");
    assertThat(four.data()).hasSize(2);
    assertThat(four.element("examplePriority@32473").orElseThrow().value("class")).contains("high");
    assertThat(four.text()).isEmpty();
    assertThat(SyslogReader.read("<0>1 - - - - - -").at()).isNull();
  }

  @Test
  void aMessageReadsBackWhateverItsValues() {
    Random random = new Random(7);
    String letters = "a\"\\]= é–\t漢";
    for (int round = 0; round < 500; round++) {
      List<Parameter> parameters = new ArrayList<>();
      for (int i = random.nextInt(4); i > 0; i--) {
        StringBuilder value = new StringBuilder();
        for (int j = random.nextInt(8); j > 0; j--) {
          value.append(letters.charAt(random.nextInt(letters.length())));
        }
        parameters.add(new Parameter("p" + i, value.toString()));
      }
      SyslogMessage message =
          new SyslogMessage(
              random.nextInt(24),
              random.nextInt(8),
              Instant.ofEpochSecond(random.nextInt(), random.nextInt(1_000_000) * 1_000L),
              "host",
              null,
              "12",
              null,
              List.of(new Element("one@32473", parameters)),
              round % 2 == 0 ? "" : "said");
      assertThat(SyslogReader.read(SyslogWriter.write(message))).isEqualTo(message);
    }
  }

  @Test
  void theHeaderCannotBeBrokenByAName() {
    SyslogMessage message =
        new SyslogMessage(20, 6, null, "North terminal\n", "", null, null, List.of(), "a\nb");
    assertThat(SyslogWriter.write(message)).isEqualTo("<166>1 - North_terminal_ - - - - a b");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "hello|0",
        "<192>1 - - - - - -|1",
        "<x>1 - - - - - -|1",
        "<34>2 - - - - - -|4",
        "<34>1 yesterday - - - - -|6",
        "<34>1 - - - -|13",
        "<34>1 - - - - - [a|18",
        "<34>1 - - - - - [a b=\"c|23",
        "<34>1 - - - - - [a b=c]|21",
        "<34>1 - - - - - x|16",
      })
  void aWrongMessageSaysWhere(String line, int place) {
    assertThatThrownBy(() -> SyslogReader.read(line))
        .isInstanceOfSatisfying(
            InvalidText.class, wrong -> assertThat(wrong.offset()).isEqualTo(place));
  }

  @Test
  void anyBytesAreAMessageOrAnErrorAndNothingElse() {
    long seed = System.nanoTime();
    Random random = new Random(seed);
    byte[] valid = SyslogWriter.write(DECISION.message(NOW)).getBytes(StandardCharsets.UTF_8);
    int read = 0;
    for (int round = 0; round < 20_000; round++) {
      byte[] bytes = valid.clone();
      for (int i = random.nextInt(3); i >= 0; i--) {
        bytes[random.nextInt(bytes.length)] = (byte) random.nextInt(256);
      }
      String line =
          new String(
              Arrays.copyOf(bytes, random.nextInt(bytes.length + 1)), StandardCharsets.UTF_8);
      try {
        DecisionRecord.of(SyslogReader.read(line));
        read++;
      } catch (InvalidText e) {
        assertThat(e.offset()).as("seed %d: %s", seed, line).isBetween(0, line.length());
      }
    }
    assertThat(read).as("seed %d", seed).isPositive();
  }

  @Test
  void recordsReadBackFromTheirMessages() {
    String line = SyslogWriter.write(DECISION.message(NOW));
    assertThat(DecisionRecord.of(SyslogReader.read(line))).contains(DECISION);
    HitRecord hits =
        new HitRecord(
            DECISION.origin(),
            7,
            null,
            6,
            3,
            2,
            1,
            40,
            5_000,
            Instant.parse("2026-12-01T09:00:00Z"),
            Instant.parse("2026-12-01T09:00:04Z"));
    SyslogMessage carried = SyslogReader.read(SyslogWriter.write(hits.message(NOW)));
    assertThat(HitRecord.of(carried)).contains(hits);
    assertThat(DecisionRecord.of(carried)).isEmpty();
    String wrong = line.replace("port=\"443\"", "port=\"99999\"");
    assertThatThrownBy(() -> DecisionRecord.of(SyslogReader.read(wrong)))
        .hasMessageContaining("a whole number from 0 to 65535 as port of connection@32473")
        .hasMessageContaining("99999");
    String noPorts = line.replace("protocol=\"6\"", "protocol=\"47\"");
    assertThatThrownBy(() -> DecisionRecord.of(SyslogReader.read(noPorts)))
        .hasMessageContaining("a whole number from 0 to 0 as port of connection@32473");
  }

  @Test
  void framesAreFoundHoweverTheBytesArrive() {
    List<String> sent = List.of("<34>1 - a - - - - é", "<35>1 - b - - - - on a line", "12 is text");
    ByteArrayOutputStream stream = new ByteArrayOutputStream();
    stream.writeBytes(SyslogWriter.frame(SyslogReader.read(sent.get(0))));
    stream.writeBytes((sent.get(1) + "\r\n").getBytes(StandardCharsets.UTF_8));
    byte[] counted = sent.get(2).getBytes(StandardCharsets.UTF_8);
    stream.writeBytes((counted.length + " ").getBytes(StandardCharsets.UTF_8));
    stream.writeBytes(counted);
    byte[] all = stream.toByteArray();
    for (int step = 1; step <= all.length; step++) {
      List<String> found = new ArrayList<>();
      List<String> faults = new ArrayList<>();
      SyslogFrames frames = new SyslogFrames(found::add, faults::add);
      for (int at = 0; at < all.length; at += step) {
        frames.add(Arrays.copyOfRange(all, at, Math.min(all.length, at + step)));
      }
      assertThat(found).as("%d bytes at once", step).isEqualTo(sent);
      assertThat(faults).isEmpty();
    }
  }

  @Test
  void aMessageThatIsTooLongIsSkippedAndTheNextIsRead() {
    List<String> found = new ArrayList<>();
    List<String> faults = new ArrayList<>();
    SyslogFrames frames = new SyslogFrames(found::add, faults::add);
    frames.add(("9000 " + "x".repeat(9000) + "2 ok").getBytes(StandardCharsets.UTF_8));
    frames.add(("<" + "y".repeat(10_000) + "\n3 too").getBytes(StandardCharsets.UTF_8));
    assertThat(found).containsExactly("ok", "too");
    assertThat(faults)
        .containsExactly(
            "A message of 9000 bytes is longer than 8192.", "A message is longer than 8192 bytes.");
  }
}
