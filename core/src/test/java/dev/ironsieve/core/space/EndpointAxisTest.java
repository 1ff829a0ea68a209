package dev.ironsieve.core.space;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** An end of connections, held to asking each address in each zone for itself. */
class EndpointAxisTest {
  private static final List<String> ZONES = List.of("quay", "office", "sea");
  private static final List<String> TEXTS =
      List.of(
          "10.0.0.0/30",
          "10.0.0.2-10.0.0.5",
          "10.0.0.7",
          "10.0.0.4/30",
          "255.255.255.254/31",
          "0.0.0.0",
          "0.0.0.0/0",
          "fd00::/126",
          "fd00::2-fd00::5",
          "ffff:ffff:ffff:ffff:ffff:ffff:ffff:ffff",
          "::/0");
  private static final List<Address> ADDRESSES = new ArrayList<>();

  static {
    for (int i = 0; i < 9; i++) {
      ADDRESSES.add(Address.parse("10.0.0." + i));
      ADDRESSES.add(Address.parse("fd00::" + i));
    }
    for (String edge :
        List.of("0.0.0.0", "0.0.0.1", "255.255.255.253", "255.255.255.254", "255.255.255.255")) {
      ADDRESSES.add(Address.parse(edge));
    }
    ADDRESSES.add(Address.parse("ffff:ffff:ffff:ffff:ffff:ffff:ffff:fffe"));
    ADDRESSES.add(Address.parse("ffff:ffff:ffff:ffff:ffff:ffff:ffff:ffff"));
  }

  private static AddressSet some(Random random) {
    List<AddressRange> ranges = new ArrayList<>();
    for (String text : TEXTS) {
      if (random.nextInt(4) == 0 && (!text.contains("/0") || random.nextInt(4) == 0)) {
        ranges.add(AddressRange.parse(text));
      }
    }
    return AddressSet.of(ranges);
  }

  private static IntSet someZones(Random random) {
    IntSet out = IntSet.of(random.nextInt(ZONES.size()));
    return random.nextBoolean() ? out.union(IntSet.of(random.nextInt(ZONES.size()))) : out;
  }

  /** Quay declares a few networks, the others hold every address. */
  private static Resolution resolution() {
    List<Zone> zones = new ArrayList<>();
    zones.add(
        new Zone(
            "quay",
            List.of(AddressRange.parse("10.0.0.0/29"), AddressRange.parse("fd00::/125")),
            ""));
    zones.add(new Zone("office", List.of(), ""));
    zones.add(new Zone("sea", List.of(), ""));
    return new Resolution(new Rulebase("r", zones, List.of(), List.of(), List.of()));
  }

  private static boolean isFeasible(int zone, Address address) {
    String text = address.toString();
    return zone != 0 || text.matches("10\\.0\\.0\\.[0-7]") || text.matches("fd00::[1-7]?");
  }

  private static void check(
      EndpointAxis line, List<EndpointAxis.Side> sides, List<IntSet[]> codes, int seed) {
    for (int zone = 0; zone < ZONES.size(); zone++) {
      for (Address address : ADDRESSES) {
        int code = line.codeOf(zone, address);
        assertThat(code >= 0)
            .as("seed %d: %s in %s", seed, address, ZONES.get(zone))
            .isEqualTo(isFeasible(zone, address));
        if (code < 0) {
          continue;
        }
        for (int i = 0; i < sides.size(); i++) {
          EndpointAxis.Side side = sides.get(i);
          assertThat(codes.get(i)[address.family().ordinal()].contains(code))
              .as("seed %d: %s in %s by %s", seed, address, ZONES.get(zone), side)
              .isEqualTo(side.zones().contains(zone) && side.addresses().contains(address));
        }
        for (Family family : Family.values()) {
          assertThat(line.family(family).contains(code)).isEqualTo(address.family() == family);
        }
        Endpoint same = line.value(code, List.of(address));
        assertThat(same).isEqualTo(new Endpoint(ZONES.get(zone), address));
        Endpoint some = line.value(code, List.of());
        assertThat(line.codeOf(ZONES.indexOf(some.zone()), some.address())).isEqualTo(code);
        assertThat(line.familiar(code, List.of(address))).containsExactly(code);
      }
    }
  }

  @Test
  void zonesAndAddressesAreToldApartTogether() {
    for (int seed = 0; seed < Rounds.of(150); seed++) {
      Random random = new Random(seed);
      List<EndpointAxis.Side> sides = new ArrayList<>();
      for (int i = random.nextInt(5); i >= 0; i--) {
        sides.add(new EndpointAxis.Side(someZones(random), some(random)));
      }
      EndpointAxis line = new EndpointAxis(resolution(), sides);
      List<IntSet[]> codes = new ArrayList<>();
      sides.forEach(side -> codes.add(line.codes(side.zones(), side.addresses())));
      check(line, sides, codes, seed);
      for (int i = 0; i < 4; i++) {
        EndpointAxis.Side more = new EndpointAxis.Side(someZones(random), some(random));
        sides.add(more);
        codes.add(line.codes(more.zones(), more.addresses()));
        check(line, sides, codes, seed);
      }
    }
  }

  @Test
  void aSetIsSaidInRangesOrAsAWholeZone() {
    AddressSet hosts =
        AddressSet.of(
            List.of(AddressRange.parse("10.0.0.2-10.0.0.5"), AddressRange.parse("fd00::4/126")));
    IntSet quayAndSea = IntSet.of(0).union(IntSet.of(2));
    EndpointAxis line =
        new EndpointAxis(resolution(), List.of(new EndpointAxis.Side(quayAndSea, hosts)));
    IntSet[] codes = line.codes(quayAndSea, hosts);
    assertThat(line.words(codes[Family.IPV4.ordinal()], true))
        .containsExactly("10.0.0.2-10.0.0.5 in quay", "10.0.0.2-10.0.0.5 in sea");
    assertThat(line.words(codes[Family.IPV6.ordinal()], true))
        .containsExactly("fd00::4/126 in quay", "fd00::4/126 in sea");
    IntSet[] whole = line.codes(IntSet.of(0), AddressSet.ALL);
    assertThat(line.words(whole[0].union(whole[1]), true)).containsExactly("quay");
    assertThat(line.words(whole[0], true)).containsExactly("quay (IPv4)");
    assertThat(line.words(whole[0], false)).containsExactly("every address (IPv4)");
    assertThat(line.zonesOf(whole[0])).containsExactly(0);
  }

  @Test
  void thereIsAnEndToTheRoom() {
    EndpointAxis line = new EndpointAxis(resolution(), List.of());
    int told = 0;
    while (told < 100) {
      AddressSet set = AddressSet.of(AddressRange.parse("10.9.0.0-10.9.1." + (200 - told)));
      if (line.codesIfRoom(IntSet.of(1), set).isEmpty()) {
        break;
      }
      told++;
    }
    assertThat(told).isBetween(25, 31);
  }
}
