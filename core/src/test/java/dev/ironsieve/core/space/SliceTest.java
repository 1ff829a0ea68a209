package dev.ironsieve.core.space;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Random;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** The runs of addresses in a zone, held to a list of them that is gone through from its start. */
class SliceTest {
  /** Addresses close together and far apart; of IPv6 many that begin alike. */
  private static Address some(Family family, Random random) {
    int bits = random.nextInt(8);
    long low = random.nextLong() >>> (8 * bits);
    if (family == Family.IPV4) {
      return new Address(family, 0, random.nextBoolean() ? low >>> 32 : low & 0xFFF);
    }
    long high = random.nextBoolean() ? 0x20010db8_00000000L : random.nextLong() >>> (8 * bits);
    return new Address(family, high, random.nextBoolean() ? low : random.nextInt(16));
  }

  /** Runs between some addresses, with gaps between some of them. */
  private static List<AddressRange> runs(Family family, int count, Random random) {
    TreeSet<Address> bounds = new TreeSet<>();
    while (bounds.size() < 2 * count) {
      bounds.add(some(family, random));
    }
    List<AddressRange> out = new ArrayList<>();
    while (!bounds.isEmpty()) {
      Address first = bounds.pollFirst();
      boolean gap = random.nextBoolean() || bounds.size() == 1;
      Address last =
          bounds.isEmpty() ? first : gap ? bounds.pollFirst() : bounds.first().previous();
      out.add(new AddressRange(first, last));
    }
    return out;
  }

  private static Slice slice(Family family, List<AddressRange> runs) {
    Slice slice = new Slice(family, 0, runs.size());
    for (AddressRange run : runs) {
      slice.add(
          Slice.key(run.first()),
          Slice.rest(run.first()),
          Slice.key(run.last()),
          Slice.rest(run.last()));
    }
    slice.index();
    return slice;
  }

  private static boolean isBeside(Slice slice, String range) {
    AddressSet set = AddressSet.of(AddressRange.parse(range));
    return slice.isBeside(new Ranges(slice.family, List.of(set)), 0);
  }

  private static void check(Slice slice, List<AddressRange> runs, Address address) {
    int expected = -1;
    while (expected + 1 < runs.size() && runs.get(expected + 1).first().compareTo(address) <= 0) {
      expected++;
    }
    int run = slice.at(address);
    assertThat(run).as("%s among %s", address, runs).isEqualTo(expected);
    if (run >= 0) {
      assertThat(slice.beginsAt(run, address)).isEqualTo(runs.get(run).first().equals(address));
      assertThat(slice.endsBefore(run, address)).isEqualTo(!runs.get(run).contains(address));
    }
  }

  private static void checkAll(Slice slice, List<AddressRange> runs, Random random) {
    assertThat(slice.runs()).isEqualTo(runs.size());
    for (int i = 0; i < runs.size(); i++) {
      AddressRange run = runs.get(i);
      assertThat(new AddressRange(slice.first(i), slice.last(i))).isEqualTo(run);
      Stream.of(run.first().previous(), run.first(), run.last(), run.last().next())
          .filter(Objects::nonNull)
          .forEach(address -> check(slice, runs, address));
    }
    for (int i = 0; i < 50; i++) {
      check(slice, runs, some(slice.family, random));
    }
    AddressRange all = AddressRange.parse(slice.family == Family.IPV4 ? "0.0.0.0/0" : "::/0");
    check(slice, runs, all.first());
    check(slice, runs, all.last());
  }

  @Test
  void anAddressIsInTheRunThatBeginsLastBeforeIt() {
    for (int seed = 0; seed < Rounds.of(200); seed++) {
      Random random = new Random(seed);
      for (Family family : Family.values()) {
        List<AddressRange> runs = runs(family, 1 + random.nextInt(60), random);
        Slice slice = slice(family, runs);
        checkAll(slice, runs, random);
        for (int cuts = random.nextInt(30); cuts > 0; cuts--) {
          int run = random.nextInt(runs.size());
          AddressRange whole = runs.get(run);
          Address second =
              random.nextBoolean() && whole.contains(whole.someHost())
                  ? whole.someHost()
                  : whole.last();
          if (second.equals(whole.first())) {
            continue;
          }
          slice.cut(run, second);
          runs.set(run, new AddressRange(whole.first(), second.previous()));
          runs.add(run + 1, new AddressRange(second, whole.last()));
        }
        checkAll(slice, runs, random);
      }
    }
  }

  @Test
  void runsThatTouchAreOneRange() {
    for (int seed = 0; seed < Rounds.of(200); seed++) {
      Random random = new Random(seed);
      for (Family family : Family.values()) {
        List<AddressRange> runs = runs(family, 1 + random.nextInt(60), random);
        Slice slice = slice(family, runs);
        int from = random.nextInt(runs.size());
        int to = from + random.nextInt(runs.size() + 1 - from);
        List<AddressRange> ranges = new ArrayList<>();
        slice.addRanges(ranges, from, to);
        assertThat(ranges).isEqualTo(AddressSet.of(runs.subList(from, to)).ranges());
      }
    }
  }

  @Test
  void aZoneWithoutAddressesOfAFamilyHasNoRun() {
    Slice none = new Slice(Family.IPV6, 0, 0);
    assertThat(none.runs()).isZero();
    assertThat(none.at(Address.parse("2001:db8::1"))).isEqualTo(-1);
    assertThat(isBeside(none, "::/0")).isTrue();
  }

  @Test
  void aRangeIsBesideThatMeetsNothingBetweenTheFirstAndTheLastAddress() {
    Slice slice =
        slice(
            Family.IPV4,
            List.of(AddressRange.parse("10.0.0.8/30"), AddressRange.parse("10.0.0.16/30")));
    assertThat(isBeside(slice, "10.0.0.0/29")).isTrue();
    assertThat(isBeside(slice, "10.0.0.0-10.0.0.8")).isFalse();
    assertThat(isBeside(slice, "10.0.0.12/30")).isFalse();
    assertThat(isBeside(slice, "10.0.0.19-10.0.0.30")).isFalse();
    assertThat(isBeside(slice, "10.0.0.20/30")).isTrue();
  }
}
