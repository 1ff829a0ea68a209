package dev.ironsieve.core.vocabulary;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.TimeZones;
import dev.ironsieve.core.twin.Rounds;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** How far clocks are ahead of each other, against the JDK's own reckoning of each moment. */
class ClocksTest {
  private static final List<String> ALL =
      new TreeSet<>(ZoneId.getAvailableZoneIds())
          .stream().filter(id -> id.indexOf('/') > 0 && !id.startsWith("SystemV")).toList();

  private static ZoneId some(Random random) {
    return TimeZones.parse(ALL.get(random.nextInt(ALL.size())));
  }

  private static boolean comesOnce(ZoneId zone, LocalDateTime time) {
    return zone.getRules().getValidOffsets(time).size() == 1;
  }

  @Test
  void anyTwoClocksDifferAsTheyDo() {
    int changing = 0;
    for (int seed = 0; seed < Rounds.of(400); seed++) {
      Random random = new Random(seed);
      ZoneId gateway = some(random);
      ZoneId other = some(random);
      Clocks clocks = Clocks.between(gateway, other);
      changing += clocks.changes().isEmpty() ? 0 : 1;
      for (int i = 0; i < 50; i++) {
        LocalDateTime here =
            LocalDateTime.of(2020, 2, 1, 0, 0).plusMinutes(random.nextInt(19 * 365 * 24 * 60));
        if (!comesOnce(gateway, here)) {
          continue;
        }
        LocalDateTime there = here.atZone(gateway).withZoneSameInstant(other).toLocalDateTime();
        long ahead = ChronoUnit.MINUTES.between(here, there);
        assertThat(clocks.ahead(here))
            .as("%s at %s to %s", gateway, here, other)
            .isEqualTo((int) ahead);
        assertThat(clocks.allAhead()).contains((int) ahead);
        if (comesOnce(other, there)) {
          assertThat(clocks.here(there))
              .as("%s at %s to %s", other, there, gateway)
              .isEqualTo(here);
        }
      }
    }
    assertThat(changing).isGreaterThan(Rounds.least(50));
  }

  @Test
  void clocksThatAreChangedAtOnceNeverDifferOtherwise() {
    Clocks same = Clocks.between(ZoneId.of("Europe/London"), ZoneId.of("Europe/Oslo"));
    assertThat(same.changes()).isEmpty();
    assertThat(same.allAhead()).containsExactly(60);
    Clocks own = Clocks.between(ZoneId.of("Europe/London"), null);
    assertThat(own.changes()).isEmpty();
    assertThat(own.allAhead()).containsExactly(0);
  }

  @ParameterizedTest
  @CsvSource({
    "2026-03-08T06:59, -300", // before clocks change in New York
    "2026-03-08T07:00, -240",
    "2026-03-29T00:59, -240", // before they do in London
    "2026-03-29T02:00, -300",
    "2019-07-01T00:00, -300", // before what is known, as at its beginning
    "2045-07-01T00:00, -300"
  })
  void aChangeCountsFromItsMinuteOn(LocalDateTime here, int ahead) {
    Clocks clocks = Clocks.between(ZoneId.of("Europe/London"), ZoneId.of("America/New_York"));
    assertThat(clocks.ahead(here)).isEqualTo(ahead);
    assertThat(clocks.changes()).hasSize(80); // twice a year, and each time back
  }

  @Test
  void namesAreReadInLettersOfAnyCase() {
    assertThat(TimeZones.parse("europe/OSLO")).isEqualTo(ZoneId.of("Europe/Oslo"));
    assertThat(TimeZones.parse("utc").getRules().getOffset(java.time.Instant.EPOCH))
        .isEqualTo(ZoneOffset.UTC);
  }

  @ParameterizedTest
  @ValueSource(strings = {"", "Oslo", "Europe/Harbour", "+01:00", "EST5EDT", "SystemV/EST5"})
  void whatIsNoTimeZoneIsRefused(String text) {
    assertThatThrownBy(() -> TimeZones.parse(text))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("Europe/Oslo");
  }
}
