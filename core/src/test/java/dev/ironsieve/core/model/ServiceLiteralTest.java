package dev.ironsieve.core.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import dev.ironsieve.core.sets.InvalidText;
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
        "udp/0"
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
}
