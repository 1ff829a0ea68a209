package dev.ironsieve.core.model;

import static java.time.DayOfWeek.FRIDAY;
import static java.time.DayOfWeek.MONDAY;
import static java.time.DayOfWeek.SATURDAY;
import static java.time.DayOfWeek.SUNDAY;
import static java.time.DayOfWeek.THURSDAY;
import static java.time.DayOfWeek.TUESDAY;
import static java.time.DayOfWeek.WEDNESDAY;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** What texts of times mean, said outright, and which value of the vocabulary a time has. */
class ScheduleItemTest {
  private static ScheduleItem.Weekly weekly(Set<DayOfWeek> days, int from, int to) {
    return new ScheduleItem.Weekly(days, from, to, null);
  }

  @Test
  void textsMeanDaysAndMinutes() {
    assertThat(ScheduleItem.parse("mon 06:30-07:15")).isEqualTo(weekly(Set.of(MONDAY), 390, 435));
    assertThat(ScheduleItem.parse("Mon,Wed 22-04"))
        .isEqualTo(weekly(Set.of(MONDAY, WEDNESDAY), 1320, 240));
    assertThat(ScheduleItem.parse("tue-thu 00:00-24:00"))
        .isEqualTo(weekly(Set.of(TUESDAY, WEDNESDAY, THURSDAY), 0, 1440));
    assertThat(ScheduleItem.parse("sat-mon 23:59-00:00"))
        .isEqualTo(weekly(Set.of(SATURDAY, SUNDAY, MONDAY), 1439, 0));
    assertThat(ScheduleItem.parse("fri")).isEqualTo(weekly(Set.of(FRIDAY), 0, 1440));
    assertThat(ScheduleItem.parse("weekends,fri"))
        .isEqualTo(weekly(Set.of(FRIDAY, SATURDAY, SUNDAY), 0, 1440));
    assertThat(ScheduleItem.parse("daily"))
        .isEqualTo(weekly(EnumSet.allOf(DayOfWeek.class), 0, 1440));
    assertThat(ScheduleItem.parse("2026-12-24 to 2026-12-24 in Europe/Oslo"))
        .isEqualTo(
            new ScheduleItem.Days(
                LocalDate.of(2026, 12, 24), LocalDate.of(2026, 12, 24), ZoneId.of("Europe/Oslo")));
    for (String wrong :
        List.of("mon 24:00-06:00", "mon 06:00-24:01", "mon 23:60-23:61", "-mon", "mon,", ",mon")) {
      assertThat(ScheduleItem.isOne(wrong)).as(wrong).isFalse();
    }
  }

  @Test
  void aTimeHasTheValueThatBeganLast() {
    List<TermObject> none = List.of();
    Vocabulary week = TimeVocabulary.of(none, List.of("mon 06:00-22:00"), GatewaySettings.UTC);
    assertThat(week.values()).containsExactly("mon 00:00", "mon 06:00", "mon 22:00");
    assertThat(week.value("mon 00:00")).contains("mon 00:00");
    assertThat(week.value("mon 05:59")).contains("mon 00:00");
    assertThat(week.value("Mon 06:00")).contains("mon 06:00");
    assertThat(week.value("2026-12-21T06:01")).contains("mon 06:00");
    assertThat(week.value("sun 23:59")).contains("mon 22:00");
    for (String wrong : List.of("mon", " 06:00", "mon soon", "mon 24:00", "moon 06:00", "06:00")) {
      assertThat(week.value(wrong)).as(wrong).isEqualTo(Optional.empty());
    }
    Vocabulary dated = TimeVocabulary.of(none, List.of("2026-12-24"), GatewaySettings.UTC);
    assertThat(dated.values())
        .containsExactly(
            "mon 00:00 before 2026-12-24",
            "mon 00:00 from 2026-12-24",
            "mon 00:00 from 2026-12-25");
    assertThat(dated.value("2026-12-23T23:59")).contains("mon 00:00 before 2026-12-24");
    assertThat(dated.value("2026-12-24T00:00")).contains("mon 00:00 from 2026-12-24");
    assertThat(dated.value("2026-12-25T00:00")).contains("mon 00:00 from 2026-12-25");
    assertThat(dated.value("mon 00:00")).isEmpty();
  }

  @Test
  void partsOfTimeAreAsManyAsIsSaidAndNoMore() {
    List<String> said = new ArrayList<>(); // 32 parts of a week, with the one from its beginning
    said.addAll(List.of("daily 01-02", "daily 03-04", "mon 05-06", "mon 00-07"));
    LocalDate day = LocalDate.of(2026, 1, 1);
    for (int i = 0; i < 1562; i++, day = day.plusDays(2)) {
      said.add(day.toString()); // begins a span, as does the day behind it
    }
    assertThat(TimeVocabulary.of(List.of(), said, GatewaySettings.UTC).values()).hasSize(32 * 3125);
    said.add(day.toString());
    assertThatThrownBy(() -> TimeVocabulary.of(List.of(), said, GatewaySettings.UTC))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("at most 100000")
        .hasMessageContaining("found 100064");
  }
}
