package dev.ironsieve.core.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.sets.Transport;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ServiceLiteralTest {
  @ParameterizedTest
  @ValueSource(
      strings = {
        "tcp",
        "tcp/443",
        "udp/5000-5100",
        "tcp/443 from 1024-65535",
        "sctp from 7",
        "icmp",
        "icmp/8",
        "icmp/3/1",
        "icmp6/128",
        "ip/47",
        "udp/0",
        "tcp/65535",
        "tcp/1-65535",
        "tcp from 0-1023",
        "icmp/0",
        "icmp/255",
        "icmp/0/0",
        "icmp/255/255",
        "ip/0",
        "ip/255"
      })
  void writesWhatItReads(String text) {
    assertThat(ServiceLiteral.parse(text)).hasToString(text);
    assertThat(ServiceItem.parse(text)).isEqualTo(ServiceLiteral.parse(text));
  }

  @ParameterizedTest
  @CsvSource({
    "tcp/65536, 4, a port from 0 to 65535",
    "tcp/, 4, a port from 0 to 65535",
    "tcp/9-8, 6, a port not below 9",
    "tcp/1 from x, 11, a port from 0 to 65535",
    "icmp/256, 5, an ICMP type from 0 to 255",
    "icmp/3/x, 7, an ICMP code from 0 to 255",
    "icmp/3 from 5, 12, source ports with tcp",
    "ip/256, 3, an IP protocol number",
    "ip/6 from 5, 10, source ports with tcp",
    "tpc/443, 0, 'tcp, udp, sctp'",
    "/443, 0, 'tcp, udp, sctp'",
    "tcp/-5, 4, 'a port from 0 to 65535, found nothing'",
    "tcp/17-x, 7, 'a port from 0 to 65535, found \"x\"'",
    "tcp/017, 4, a port from 0 to 65535",
    "tcp/1 from 17-x, 14, a port from 0 to 65535",
    "tcp/1 from 17-16, 14, a port not below 17",
    "icmp//1, 5, 'an ICMP type from 0 to 255, found nothing'",
    "icmp/3/256, 7, an ICMP code from 0 to 255",
    "icmp/3/1-2, 7, an ICMP code from 0 to 255",
    "ip, 3, an IP protocol number from 0 to 255",
  })
  void saysWhereAndWhat(String text, int offset, String expected) {
    InvalidText error = catchThrowableOfType(InvalidText.class, () -> ServiceItem.parse(text));
    assertThat(error.offset()).isEqualTo(offset);
    assertThat(error).hasMessageContaining(expected);
  }

  @Test
  void otherTextIsAName() {
    assertThat(ServiceItem.parse("Web services")).isEqualTo(new ServiceItem.Named("Web services"));
    assertThatThrownBy(() -> ServiceItem.parse(" x")).isInstanceOf(InvalidModel.class);
  }

  @Test
  void portsFromOneToItselfAreThatPort() {
    assertThat(ServiceLiteral.parse("tcp/9-9 from 7-7"))
        .isEqualTo(new ServiceLiteral(Transport.TCP, 9, 9, 7, 7))
        .hasToString("tcp/9 from 7");
    assertThat(ServiceLiteral.ports(Transport.UDP, 5, 6)).hasToString("udp/5-6");
  }

  @Test
  void literalsAreTheSameIfAllIsTheSame() {
    ServiceLiteral one = new ServiceLiteral(Transport.TCP, 5, 9, 20, 30);
    assertThat(new ServiceLiteral(Transport.TCP, 5, 9, 20, 30))
        .isEqualTo(one)
        .hasSameHashCodeAs(one);
    assertThat(
            List.of(
                new ServiceLiteral(Transport.UDP, 5, 9, 20, 30),
                new ServiceLiteral(Transport.TCP, 4, 9, 20, 30),
                new ServiceLiteral(Transport.TCP, 5, 8, 20, 30),
                new ServiceLiteral(Transport.TCP, 5, 9, 21, 30),
                new ServiceLiteral(Transport.TCP, 5, 9, 20, 31)))
        .doesNotContain(one)
        .extracting(Object::hashCode)
        .doesNotContain(one.hashCode());
  }

  @ParameterizedTest
  @CsvSource({
    "-1, 0, 0, 0, 65535",
    "256, 0, 0, 0, 65535",
    "6, -1, 5, 0, 65535",
    "6, 6, 5, 0, 65535",
    "6, 5, 65536, 0, 65535",
    "6, 5, 5, -1, 65535",
    "6, 5, 5, 9, 8",
    "6, 5, 5, 0, 65536",
    "47, 0, 1, 0, 65535",
    "47, 0, 0, 0, 65534",
    "1, 0, 0, 1, 65535",
  })
  void whatNoServiceHasIsRefused(int protocol, int first, int last, int source, int lastSource) {
    assertThatThrownBy(() -> new ServiceLiteral(protocol, first, last, source, lastSource))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessageContaining("protocol " + protocol);
  }

  /** The texts, and that they are just the positions: read back where the text can be read. */
  @Test
  void positionsAreSaidInTheFewestTexts() {
    IntSet throughTheEndOfTcp =
        IntSet.range(position(Transport.TCP, 65000), position(7, 0)).union(positions("udp/0-7"));
    assertThat(throughTheEndOfTcp.intervals()).isEqualTo(2);
    assertThat(ServiceLiteral.covering(throughTheEndOfTcp))
        .containsExactly("tcp/65000-65535", "ip/7", "udp/0-7");
    assertThat(ServiceLiteral.covering(IntSet.EMPTY)).isEmpty();
    assertThat(icmp(0x0300, 0x03FF)).containsExactly("icmp/3");
    assertThat(icmp(0x0301, 0x0301)).containsExactly("icmp/3/1");
    assertThat(icmp(0x0301, 0x0402)).containsExactly("icmp/3/1-4/2");
    assertThat(icmp(0x0300, 0x0402)).containsExactly("icmp/3/0-4/2");
    assertThat(icmp(0x0301, 0x03FF)).containsExactly("icmp/3/1-3/255");
    assertThat(icmp(0x0300, 0x04FF)).containsExactly("icmp/3/0-4/255");
    assertThat(icmp(0, 0x01FF)).containsExactly("icmp/0/0-1/255");
    for (List<String> parts :
        List.of(
            List.of("tcp/1-5", "udp/9"),
            List.of("icmp/8", "ip/47", "ip/50"),
            List.of("sctp"),
            List.of("icmp"))) {
      IntSet positions = IntSet.EMPTY;
      for (String part : parts) {
        positions = positions.union(positions(part));
      }
      assertThat(ServiceLiteral.covering(positions)).containsExactlyInAnyOrderElementsOf(parts);
    }
  }

  private static IntSet positions(String text) {
    ServiceLiteral literal = ServiceLiteral.parse(text);
    return IntSet.range(
        position(literal.protocol(), literal.firstDetail()),
        position(literal.protocol(), literal.lastDetail()));
  }

  private static List<String> icmp(int first, int last) {
    return ServiceLiteral.covering(
        IntSet.range(position(Transport.ICMP, first), position(Transport.ICMP, last)));
  }

  private static int position(int protocol, int detail) {
    return Transport.position(protocol, detail);
  }
}
