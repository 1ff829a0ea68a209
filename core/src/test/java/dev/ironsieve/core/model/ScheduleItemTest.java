package dev.ironsieve.core.model;

import static java.time.DayOfWeek.FRIDAY;
import static java.time.DayOfWeek.MONDAY;
import static java.time.DayOfWeek.SATURDAY;
import static java.time.DayOfWeek.SUNDAY;
import static java.time.DayOfWeek.THURSDAY;
import static java.time.DayOfWeek.TUESDAY;
import static java.time.DayOfWeek.WEDNESDAY;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** What texts of times mean, said outright. */
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
}
