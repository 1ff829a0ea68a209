package dev.ironsieve.core.text;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ConnectionLineTest {
  private static final Rulebase BASE =
      new Rulebase(
          "test",
          List.of(
              new Zone("offices", List.of(AddressRange.parse("10.0.0.0/8")), ""),
              new Zone("ticket kiosks", List.of(AddressRange.parse("10.4.0.0/16")), ""),
              new Zone("internet", List.of(), "")),
          List.of(
              new AddressObject("booking front", List.of(AddressItem.parse("192.0.2.10")), ""),
              new AddressObject("many", List.of(AddressItem.parse("10.4.0.0/16")), "")),
          List.of(
              new ServiceObject("Secure web", List.of(ServiceItem.parse("tcp/443")), ""),
              new ServiceObject("Web both", List.of(ServiceItem.parse("Secure web")), ""),
              new ServiceObject("Range", List.of(ServiceItem.parse("tcp/1-9")), "")),
          Rulebase.empty("x").sections());

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "from 10.4.2.9 to 192.0.2.10 tcp/443"
            + "| from 10.4.2.9 in ticket kiosks to 192.0.2.10 in internet tcp/443",
        "to booking front Secure web from 10.9.9.9 from port 50000"
            + "| from 10.9.9.9 in offices to 192.0.2.10 in internet tcp/443 from port 50000",
        "Web both | tcp/443",
        "FROM 10.4.2.9 IN Offices icmp/8 | from 10.4.2.9 in offices icmp/8/0",
        "from in internet to 2001:db8::1 udp | from in internet to 2001:db8::1 in internet udp",
        "ip/47 | ip/47",
        "'' | ''",
      })
  void readsWhatPeopleTypeAndWritesItInFull(String line, String full) {
    Connection connection = ConnectionLine.parse(line, BASE);
    assertThat(ConnectionLine.format(connection)).isEqualTo(full);
    assertThat(ConnectionLine.parse(full, BASE)).isEqualTo(connection);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "from 10.4.2.999 | 12 | a number from 0 to 255",
        "from kiosk7 | 5 | an address or the name of an address object",
        "from many | 5 | an object with a single address",
        "from 10.4.2.9 in nowhere | 17 | the name of a zone",
        "from | 4 | an address",
        "tcp/443 tcp/80 | 8 | one service",
        "tcp/1-9 | 0 | a service with a single port",
        "Range | 0 | a service with a single port",
        "from port 70000 | 10 | a port from 0 to 65535",
        "from 10.4.2.9 from 10.4.2.9 | 14 | one \"from\"",
        "hello | 0 | \"from\", \"to\", or a service",
        "from 10.4.2.9 to 2001:db8::1 | 28 | both addresses of the same family",
      })
  void saysWhereALineGoesWrong(String line, int offset, String expected) {
    InvalidText error =
        catchThrowableOfType(InvalidText.class, () -> ConnectionLine.parse(line, BASE));
    assertThat(error).hasMessageContaining(expected);
    assertThat(error.offset()).isEqualTo(offset);
  }

  @Test
  void aLineHasALimit() {
    InvalidText error =
        catchThrowableOfType(InvalidText.class, () -> ConnectionLine.parse("x".repeat(1001), BASE));
    assertThat(error).hasMessageContaining("at most 1000 characters");
  }

  @Test
  void namesWhatElseIsKnown() {
    Rulebase base = new SmallWorld(1, true).rulebase(3);
    String line = "from 10.0.0.1 in north to 10.0.0.3 in south tcp/1 from port 5";
    Connection connection = ConnectionLine.parse(line + " application CHAT: post person ben", base);
    assertThat(connection.terms())
        .isEqualTo(Map.of(Coordinate.PERSON, "ben", Coordinate.APPLICATION, "chat: post"));
    String full = line + " person ben application chat: post";
    assertThat(ConnectionLine.format(connection)).isEqualTo(full);
    assertThat(ConnectionLine.parse(full, base)).isEqualTo(connection);
    for (Connection any : SmallWorld.connectionsWithTerms()) {
      assertThat(ConnectionLine.parse(ConnectionLine.format(any), base)).isEqualTo(any);
    }
    assertThatThrownBy(() -> ConnectionLine.parse("tcp/1 person zoe", base))
        .isInstanceOf(InvalidText.class)
        .hasMessageContaining("a value of the person vocabulary")
        .hasMessageContaining("zoe");
    assertThatThrownBy(() -> ConnectionLine.parse("person ann person ben", base))
        .hasMessageContaining("one person");
  }
}
