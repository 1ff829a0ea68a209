package dev.ironsieve.formats.feed;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.model.FeedKind;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.formats.InvalidDocument;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FeedReaderTest {
  private static ReadFeed read(FeedKind kind, String text) {
    return FeedReader.read(kind, "Block", text.getBytes(StandardCharsets.UTF_8));
  }

  private static Map<String, List<String>> sets(ReadFeed feed) {
    return feed.sets().stream().collect(Collectors.toMap(FeedSet::name, FeedSet::members));
  }

  @Test
  void anAddressAline() {
    ReadFeed feed =
        read(
            FeedKind.ADDRESSES,
            "\uFEFF# made daily\r\n\r\n203.0.113.0/28 ; case 12\r\n203.0.113.16\r\n"
                + "2001:db8::/32 # six\n198.51.100.4-198.51.100.9\n");
    assertThat(feed.good()).isEqualTo(4);
    assertThat(feed.bad()).isZero();
    assertThat(sets(feed))
        .isEqualTo(
            Map.of(
                "Block",
                List.of("198.51.100.4-198.51.100.9", "203.0.113.0-203.0.113.16", "2001:db8::/32")));
  }

  @Test
  void columnsAreFoundByTheirTitlesInAnyOrder() {
    assertThat(sets(read(FeedKind.ADDRESSES, "seen,Address\n2026-11-01,203.0.113.4\n")))
        .isEqualTo(Map.of("Block", List.of("203.0.113.4")));
    assertThat(sets(read(FeedKind.ADDRESSES, "first,last\n203.0.113.4,203.0.113.7\n")))
        .isEqualTo(Map.of("Block", List.of("203.0.113.4/30")));
    assertThat(
            sets(
                read(
                    FeedKind.COUNTRIES,
                    "country,first,last\n\"Vestmark\",203.0.113.0,203.0.113.255\n")))
        .isEqualTo(Map.of("Vestmark", List.of("203.0.113.0/24")));
    assertThat(sets(read(FeedKind.CATEGORIES, "category,host\n\"Bets & dice\",x.example\n")))
        .isEqualTo(Map.of("Bets & dice", List.of("x.example")));
  }

  @Test
  void withoutAHeaderTheUsualColumnsAreMeant() {
    assertThat(
            sets(
                read(
                    FeedKind.COUNTRIES,
                    "203.0.113.0/25,Vestmark\n198.51.100.0/24,Sund\n203.0.113.128/25,vestmark\n")))
        .isEqualTo(
            Map.of("Vestmark", List.of("203.0.113.0/24"), "Sund", List.of("198.51.100.0/24")));
    assertThat(sets(read(FeedKind.COUNTRIES, "203.0.113.0,203.0.113.127,Vestmark\n::1,::1,Sund\n")))
        .isEqualTo(Map.of("Vestmark", List.of("203.0.113.0/25"), "Sund", List.of("::1")));
    assertThat(sets(read(FeedKind.CATEGORIES, "*.DICE.example,Games\nwww.dice.example,games\n")))
        .isEqualTo(Map.of("Games", List.of("*.dice.example", "www.dice.example")));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "ADDRESSES | 203.0.113.7/24 | no bits set behind",
        "ADDRESSES | localhost | a number from 0 to 255",
        "ADDRESSES | 203.0.113.9-203.0.113.1 | not below",
        "ADDRESSES | <html> | a number from 0 to 255",
        "COUNTRIES | 198.51.100.0/24 | address,country",
        "COUNTRIES | 198.51.100.0/24, | a letter",
        "COUNTRIES | 198.51.100.0/24,12 | a number from 0 to 255",
        "COUNTRIES | 203.0.113.64,Sund | line 1 says Vestmark",
        "CATEGORIES | http://x.example/,Games | a host such as",
        "CATEGORIES | x.example,www.games.example | does not read like a host",
        "CATEGORIES | x.example,\"Bets, dice\" | a letter",
      })
  void aBadLineIsReportedWithItsNumberAndTheOthersAreStillThere(
      FeedKind kind, String line, String expected) {
    String good =
        switch (kind) {
          case ADDRESSES -> "203.0.113.0/24";
          case COUNTRIES -> "203.0.113.0/24,Vestmark";
          case CATEGORIES -> "*.dice.example,Games";
        };
    ReadFeed feed = read(kind, good + "\n\n" + line + "\n" + good + "\n");
    assertThat(feed.good()).isEqualTo(2);
    assertThat(feed.bad()).isEqualTo(1);
    assertThat(feed.faults().getFirst().line()).isEqualTo(3);
    assertThat(feed.faults().getFirst().expected()).contains(expected);
  }

  @Test
  void aFileWithoutAnEntryIsNoEdition() {
    assertThatThrownBy(() -> read(FeedKind.ADDRESSES, "# nothing today\n"))
        .isInstanceOf(InvalidDocument.class)
        .hasMessageContaining("at least one line");
    assertThatThrownBy(() -> read(FeedKind.CATEGORIES, "<html>\n<p>Sorry</p>\n"))
        .hasMessageContaining("2 other lines; line 1 is none");
  }

  @Test
  void garbageOfAnyKindIsReportedAndCounted() {
    Random random = new Random(7);
    StringBuilder text = new StringBuilder();
    for (int i = 0; i < 3000; i++) {
      text.append("203.0.113.").append(random.nextInt(600)).append('\n');
    }
    ReadFeed feed = read(FeedKind.ADDRESSES, text.toString());
    assertThat(feed.good() + feed.bad()).isEqualTo(3000);
    assertThat(feed.faults()).hasSize(ReadFeed.MOST_FAULTS);
    byte[] noise = new byte[20_000];
    random.nextBytes(noise);
    System.arraycopy("203.0.113.1\n".getBytes(StandardCharsets.UTF_8), 0, noise, 0, 12);
    assertThat(FeedReader.read(FeedKind.ADDRESSES, "Block", noise).good()).isEqualTo(1);
  }

  /** Whatever stands in the file, no address is in two countries, and nothing good is left out. */
  @Test
  void countriesThatContradictEachOtherAreToldApart() {
    for (int seed = 0; seed < 300; seed++) {
      Random random = new Random(seed);
      List<String> lines = new ArrayList<>();
      for (int i = 0; i < 8; i++) {
        int first = random.nextInt(12);
        int last = first + random.nextInt(5);
        lines.add("10.0.0." + first + ",10.0.0." + last + "," + (char) ('A' + random.nextInt(3)));
      }
      ReadFeed feed = read(FeedKind.COUNTRIES, String.join("\n", lines));
      List<AddressRange> all = new ArrayList<>();
      for (FeedSet set : feed.sets()) {
        set.members().forEach(member -> all.add(AddressRange.parse(member)));
      }
      for (AddressRange one : all) {
        for (AddressRange other : all) {
          assertThat(one == other || !one.contains(other.first())).as("seed %d", seed).isTrue();
        }
      }
      assertThat(feed.good() + feed.bad()).isEqualTo(8);
      for (int i = 0; i < 8; i++) {
        int line = i + 1;
        String[] fields = lines.get(i).split(",");
        boolean told = feed.faults().stream().anyMatch(fault -> fault.line() == line);
        List<String> own = sets(feed).getOrDefault(fields[2], List.of());
        AddressRange range = range(fields);
        boolean there =
            own.stream()
                .map(AddressRange::parse)
                .anyMatch(r -> r.contains(range.first()) && r.contains(range.last()));
        assertThat(there || told).as("seed %d, line %d", seed, line).isTrue();
      }
    }
  }

  private static AddressRange range(String[] fields) {
    return fields[0].equals(fields[1])
        ? AddressRange.parse(fields[0])
        : AddressRange.parse(fields[0] + "-" + fields[1]);
  }
}
