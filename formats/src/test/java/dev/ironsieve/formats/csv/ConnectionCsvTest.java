package dev.ironsieve.formats.csv;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.formats.InvalidDocument;
import java.io.IOException;
import java.io.Reader;
import java.io.StringReader;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ConnectionCsvTest {
  private static final Rulebase BASE =
      new Rulebase(
          "test",
          List.of(
              new Zone("terminals", List.of(AddressRange.parse("10.4.0.0/16")), ""),
              new Zone("kiosks", List.of(AddressRange.parse("10.4.7.0/24")), ""),
              new Zone("internet", List.of(), "")),
          List.of(),
          List.of(),
          List.of(
              new Vocabulary(
                  Coordinate.APPLICATION,
                  "e",
                  List.of("Quillbox", "Gullwire: post", "Gullwire: other use"),
                  List.of()),
              new Vocabulary(
                  Coordinate.TIME, "e", List.of("mon 00:00", "mon 09:00", "tue 00:00"), List.of())),
          Rulebase.empty("e").sections());

  private static List<Connection> read(String... lines) {
    List<Connection> out = new ArrayList<>();
    ConnectionCsv.read(
        "c.csv",
        new StringReader(String.join("\n", lines)),
        BASE,
        UnaryOperator.identity(),
        out::addAll);
    return out;
  }

  @Test
  void fillsInTheZoneThatAnAddressTellsAndKeepsWhatIsUnknown() {
    List<Connection> read =
        read("to-address,from-address,protocol", "10.4.7.1,10.4.9.9,udp", "192.0.2.1,,", ",,47");
    assertThat(read.get(0).from().zone()).isEqualTo("terminals");
    assertThat(read.get(0).to().zone()).isEqualTo("kiosks");
    assertThat(read.get(0).protocol()).isEqualTo(17);
    assertThat(read.get(0).detail()).isEqualTo(Connection.UNKNOWN);
    assertThat(read.get(1).to().zone()).isEqualTo("internet");
    assertThat(read.get(1).from()).isEqualTo(Connection.Endpoint.NOT_KNOWN);
    assertThat(read.get(2).protocol()).isEqualTo(47);
    assertThat(read.get(2).detail()).isZero();
  }

  @Test
  void readsPortsTypesAndNames() {
    assertThat(read("protocol,from-port,to-port", "tcp,50000,443"))
        .containsExactly(
            new Connection(
                Connection.Endpoint.NOT_KNOWN, Connection.Endpoint.NOT_KNOWN, 6, 443, 50000));
    assertThat(read("protocol,to-port", "icmp,3/1", "ICMP6,128"))
        .extracting(Connection::detail)
        .containsExactly(3 << 8 | 1, 128 << 8);
    assertThat(read("application,feature", "Quillbox,", "Gullwire,post", "Gullwire,", "Else,call"))
        .extracting(Connection::terms)
        .containsExactly(
            Map.of(Coordinate.APPLICATION, "Quillbox"),
            Map.of(Coordinate.APPLICATION, "Gullwire: post"),
            Map.of(Coordinate.APPLICATION, "Gullwire: other use"),
            Map.of(Coordinate.APPLICATION, "Else: call"));
  }

  @Test
  void findsTheSliceOfTheWeekThatATimeIsIn() {
    assertThat(
            read(
                "time", "2026-11-23T08:59", "2026-11-23T09:00:30", "2026-11-29T23:59", "mon 09:00"))
        .extracting(c -> c.terms().get(Coordinate.TIME))
        .containsExactly("mon 00:00", "mon 09:00", "tue 00:00", "mon 09:00");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          from-adress             | ''          | line 1, field 1
          host,host               | ''          | each column once
          from-address            | 10.0.0.256  | line 2, from-address
          from-zone               | attic       | line 2, from-zone
          protocol                | tpc         | line 2, protocol
          protocol,to-port        | tcp,65536   | line 2, to-port
          protocol,to-port        | icmp,3/300  | line 2, to-port
          time                    | noon        | line 2, time
          person                  | a,b         | line 2
          from-address,to-address | 10.0.0.1,::1 | same family
          person                  | "a"b        | after closing quote: 'b'
          person                  | "a"b        | line 2
          """)
  void saysWhereAndWhatIsWrong(String header, String line, String says) {
    assertThatThrownBy(() -> read(header, line))
        .isInstanceOf(InvalidDocument.class)
        .hasMessageContaining(says)
        .hasMessageContaining("c.csv");
  }

  @Test
  void answersManyLinesInTheirOrderUpToTheFirstFault() {
    StringBuilder text = new StringBuilder("protocol,to-port\n");
    for (int port = 1; port <= 20_000; port++) {
      text.append("udp,").append(port == 15_000 ? "x" : port + "").append('\n');
    }
    List<Integer> ports = new ArrayList<>();
    assertThatThrownBy(
            () ->
                ConnectionCsv.read(
                    "c.csv",
                    new StringReader(text.toString()),
                    BASE,
                    connections -> connections.stream().map(Connection::detail).toList(),
                    ports::addAll))
        .isInstanceOf(InvalidDocument.class)
        .hasMessageContaining("line 15001, to-port");
    assertThat(ports).isEqualTo(IntStream.range(1, 15_000).boxed().toList());
  }

  @Test
  void inputThatBreaksOffIsToldAfterWhatWasRead() {
    Reader broken =
        new Reader() {
          private final Reader before = new StringReader("protocol\nudp\ntcp\n");

          @Override
          public int read(char[] out, int from, int length) throws IOException {
            int read = before.read(out, from, length);
            if (read < 0) {
              throw new IOException(); // without a message
            }
            return read;
          }

          @Override
          public void close() {}
        };
    List<Connection> read = new ArrayList<>();
    assertThatThrownBy(
            () -> ConnectionCsv.read("c.csv", broken, BASE, UnaryOperator.identity(), read::addAll))
        .isInstanceOf(InvalidDocument.class)
        .hasMessageContaining("c.csv: expected comma-separated values");
    assertThat(read).extracting(Connection::protocol).containsExactly(17, 6);
  }

  @Test
  void anythingElseIsReadOrRefusedButNeverFails() {
    Random random = new Random(7);
    String alphabet = "from-addstp,10.:/\"'\n\r\t mue4\u0000é";
    int refused = 0;
    for (int i = 0; i < 20_000; i++) {
      StringBuilder text = new StringBuilder(i % 2 == 0 ? "from-address,to-port,time\n" : "");
      for (int length = random.nextInt(40); length > 0; length--) {
        text.append(alphabet.charAt(random.nextInt(alphabet.length())));
      }
      try {
        read(text.toString());
      } catch (InvalidDocument e) {
        refused++;
      }
    }
    assertThat(refused).isBetween(1000, 20_000);
  }
}
