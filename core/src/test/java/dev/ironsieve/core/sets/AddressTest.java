package dev.ironsieve.core.sets;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.net.InetAddress;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class AddressTest {
  @ParameterizedTest
  @CsvSource({
    "10.4.2.9, 10.4.2.9",
    "::, ::",
    "2001:DB8:0:0:1:0:0:1, 2001:db8::1:0:0:1",
    "2001:db8:0:1:1:1:1:1, 2001:db8:0:1:1:1:1:1",
    "fd00:0:0:0:0:0:0:0, fd00::",
    "::ffff:192.0.2.1, ::ffff:c000:201",
    "1::, 1::",
  })
  void readsAndWritesTheCanonicalForm(String text, String canonical) {
    assertThat(Address.parse(text)).hasToString(canonical);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        "10",
        "10.4.2",
        "10.4.2.256",
        "10.04.2.1",
        "10.4.2.9.1",
        "10.4.2.9 ",
        ":",
        ":::",
        "1::2::3",
        "1:2:3:4:5:6:7",
        "1:2:3:4:5:6:7:8:9",
        "12345::",
        "g::",
        "1:",
        "::1.2.3",
        "1:2:3:4:5:6:7::8",
        "1.2.3.4::",
        "-1.2.3.4",
        "１.2.3.4"
      })
  void refusesWhatIsNoAddress(String text) {
    InvalidText error = catchThrowableOfType(InvalidText.class, () -> Address.parse(text));
    assertThat(error).isNotNull();
    assertThat(error.offset()).isBetween(0, text.length());
  }

  @Property(tries = 500)
  void agreesWithThePlatformOnEveryIpv6Address(@ForAll long high, @ForAll long low)
      throws Exception {
    Address address = new Address(Family.IPV6, high, low);
    assertThat(Address.parse(address.toString())).isEqualTo(address);
    byte[] bytes = java.nio.ByteBuffer.allocate(16).putLong(high).putLong(low).array();
    InetAddress platform = InetAddress.getByName(address.toString());
    if (platform.getAddress().length == 16) {
      assertThat(platform.getAddress()).isEqualTo(bytes);
    }
  }

  @ParameterizedTest
  @CsvSource({
    "10.4.0.0/16, 10.4.0.0/16",
    "10.4.0.0-10.4.255.255, 10.4.0.0/16",
    "10.4.0.1-10.4.0.2, 10.4.0.1-10.4.0.2",
    "10.4.0.1/32, 10.4.0.1",
    "0.0.0.0/0, 0.0.0.0/0",
    "::/0, ::/0",
    "2001:db8::/33, 2001:db8::/33",
    "2001:db8::1-2001:db8::1, 2001:db8::1",
  })
  void rangesHaveOneText(String text, String canonical) {
    assertThat(AddressRange.parse(text)).hasToString(canonical);
    assertThat(AddressRange.parse(canonical)).isEqualTo(AddressRange.parse(text));
  }

  @Test
  void aPrefixWithHostBitsIsASlipAndTheRightOneIsNamed() {
    assertThatThrownBy(() -> AddressRange.parse("10.4.2.9/16"))
        .isInstanceOf(InvalidText.class)
        .hasMessageContaining("10.4.0.0/16");
  }

  @Test
  void errorsInsideARangePointIntoTheWholeText() {
    InvalidText error =
        catchThrowableOfType(InvalidText.class, () -> AddressRange.parse("10.0.0.1-10.0.0.999"));
    assertThat(error.offset()).isEqualTo("10.0.0.1-10.0.0.".length());
    assertThatThrownBy(() -> AddressRange.parse("10.0.0.9-10.0.0.1"))
        .hasMessageContaining("not below 10.0.0.9");
    assertThatThrownBy(() -> AddressRange.parse("10.0.0.0/33")).hasMessageContaining("0 to 32");
  }

  @Property(tries = 300)
  void setsAgreeWithIntSets(
      @ForAll List<@net.jqwik.api.constraints.IntRange(max = 60) Integer> left,
      @ForAll List<@net.jqwik.api.constraints.IntRange(max = 60) Integer> right) {
    AddressSet a = addresses(left);
    AddressSet b = addresses(right);
    IntSet ia = ints(left);
    IntSet ib = ints(right);
    assertThat(a.union(b)).isEqualTo(addresses(ia.union(ib)));
    assertThat(a.intersect(b)).isEqualTo(addresses(ia.intersect(ib)));
    assertThat(a.minus(b)).isEqualTo(addresses(ia.minus(ib)));
    assertThat(a.containsAll(b)).isEqualTo(ia.containsAll(ib));
  }

  /** Each number stands for itself and the next two, around the end of IPv4 and start of IPv6. */
  private static AddressSet addresses(List<Integer> starts) {
    return AddressSet.of(starts.stream().map(s -> range(s, s + 2)).toList());
  }

  private static AddressSet addresses(IntSet set) {
    AddressSet out = AddressSet.EMPTY;
    for (int i = 0; i < set.intervals(); i++) {
      out = out.union(AddressSet.of(range(set.first(i), set.last(i))));
    }
    return out;
  }

  private static AddressRange range(int first, int last) {
    long top = 0xffff_ffffL - 62;
    return new AddressRange(
        new Address(Family.IPV4, 0, top + first), new Address(Family.IPV4, 0, top + last));
  }

  private static IntSet ints(List<Integer> starts) {
    IntSet out = IntSet.EMPTY;
    for (int start : starts) {
      out = out.union(IntSet.range(start, start + 2));
    }
    return out;
  }

  @Test
  void bothFamiliesTogetherAreAllAddresses() {
    AddressSet v4 = AddressSet.of(AddressRange.parse("0.0.0.0/0"));
    AddressSet v6 = AddressSet.of(AddressRange.parse("::/0"));
    assertThat(v4.union(v6)).isEqualTo(AddressSet.ALL);
    assertThat(AddressSet.ALL.minus(v4)).isEqualTo(v6);
    assertThat(AddressSet.ALL.minus(AddressSet.ALL)).isEqualTo(AddressSet.EMPTY);
  }
}
