package dev.ironsieve.core.vocabulary;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.sets.IntSet;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** The values of a vocabulary of times, said outright, and which of them a time has. */
class TimeVocabularyTest {
  @Test
  void aTimeHasTheValueThatBeganLast() {
    List<TermObject> none = List.of();
    Vocabulary week = TimeVocabulary.of(none, List.of("mon 06:00-22:00"), GatewaySettings.UTC);
    assertThat(week.values()).containsExactly("mon 00:00", "mon 06:00", "mon 22:00");
    assertThat(value(week, "mon 00:00")).contains("mon 00:00");
    assertThat(value(week, "mon 05:59")).contains("mon 00:00");
    assertThat(value(week, "Mon 06:00")).contains("mon 06:00");
    assertThat(value(week, "2026-12-21T06:01")).contains("mon 06:00");
    assertThat(value(week, "sun 23:59")).contains("mon 22:00");
    for (String wrong : List.of("mon", " 06:00", "mon soon", "mon 24:00", "moon 06:00", "06:00")) {
      assertThat(value(week, wrong)).as(wrong).isEqualTo(Optional.empty());
    }
    Vocabulary dated = TimeVocabulary.of(none, List.of("2026-12-24"), GatewaySettings.UTC);
    assertThat(dated.values())
        .containsExactly(
            "mon 00:00 before 2026-12-24",
            "thu 00:00 from 2026-12-24",
            "mon 00:00 from 2026-12-25");
    assertThat(value(dated, "2026-12-23T23:59")).contains("mon 00:00 before 2026-12-24");
    assertThat(value(dated, "2026-12-24T00:00")).contains("thu 00:00 from 2026-12-24");
    assertThat(value(dated, "2026-12-25T00:00")).contains("mon 00:00 from 2026-12-25");
    assertThat(value(dated, "mon 00:00")).isEmpty();
  }

  @Test
  void partsOfTimeAreAsManyAsIsSaidAndNoMore() {
    List<String> said = new ArrayList<>(); // 32 parts of a week, with the one from its beginning
    said.addAll(List.of("daily 01-02", "daily 03-04", "mon 05-06", "mon 00-07"));
    LocalDate day = LocalDate.of(2026, 1, 1);
    for (int i = 0; i < 1562; i++, day = day.plusDays(2)) {
      said.add(day.toString()); // begins a span, as does the day behind it
    }
    // A span of one day has four or five of the 32, the first and the last have all.
    assertThat(TimeVocabulary.of(List.of(), said, GatewaySettings.UTC).values().size())
        .isBetween(4 * 3125, 6 * 3125);
    said.add(day.toString());
    assertThatThrownBy(() -> TimeVocabulary.of(List.of(), said, GatewaySettings.UTC))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("at most 100000")
        .hasMessageContaining("found 100064");
  }

  @Test
  void aShortSpanHasTheDaysThatItContains() {
    List<String> said = List.of("mon", "wed", "2026-12-01 to 2026-12-03"); // Tuesday to Thursday
    Vocabulary times = TimeVocabulary.of(List.of(), said, GatewaySettings.UTC);
    assertThat(times.values())
        .containsSubsequence(
            "thu 00:00 before 2026-12-01",
            "tue 00:00 from 2026-12-01",
            "wed 00:00 from 2026-12-01",
            "thu 00:00 from 2026-12-01",
            "mon 00:00 from 2026-12-04")
        .hasSize(4 + 3 + 4);
    IntSet mondays = times.terms().getFirst().members();
    IntSet days = times.terms().get(2).members();
    assertThat(days.size()).isEqualTo(3);
    assertThat(mondays.intersects(days)).isFalse();
  }

  @Test
  void valuesThatAreOverGiveWayToTheNextOfTheirSlice() {
    List<String> said =
        List.of(
            "mon-fri 06:00-18:00", "sat", "2026-12-01 to 2026-12-03", "2026-12-09", "2026-12-24");
    Vocabulary times = TimeVocabulary.of(List.of(), said, GatewaySettings.UTC);
    List<String> names = times.values();
    for (int ahead = -40; ahead < 40; ahead++) {
      LocalDate day = LocalDate.of(2026, 12, 9).plusDays(ahead);
      Set<String> left = new HashSet<>(); // by trying every hour from that day on
      for (int hour = 0; hour < 24 * 80; hour++) {
        left.add(value(times, day.atStartOfDay().plusHours(hour).toString()).orElseThrow());
      }
      int[] instead = TimeVocabulary.from(day, times);
      for (int value = 0; value < names.size(); value++) {
        int stands = instead == null ? value : instead[value];
        String as = "%s from %s on: %s".formatted(names.get(value), day, names.get(stands));
        assertThat(stands == value).as(as).isEqualTo(left.contains(names.get(value)));
        assertThat(left).as(as).contains(names.get(stands));
        assertThat(sameSlice(names.get(value), names.get(stands), said)).as(as).isTrue();
      }
    }
  }

  /** Whether no weekly time of a list begins or ends between the first minutes of two values. */
  private static boolean sameSlice(String one, String other, List<String> said) {
    Vocabulary week =
        TimeVocabulary.of(
            List.of(), said.stream().filter(s -> !s.startsWith("2")).toList(), GatewaySettings.UTC);
    return value(week, one.substring(0, 9)).equals(value(week, other.substring(0, 9)));
  }

  private static Optional<String> value(Vocabulary vocabulary, String said) {
    return new ValueFinder(vocabulary).value(said);
  }
}
