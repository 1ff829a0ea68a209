package dev.ironsieve.formats.icalendar;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.ScheduleItem;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.formats.InvalidDocument;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Calendars, as RFC 5545 has them, against what schedules say. */
class CalendarTest {
  private static final List<String> WEEKLY =
      List.of(
          "weekdays 06:00-22:00",
          "sat-sun",
          "mon,wed 22:00-04:00",
          "daily 11:30-13:00",
          "daily",
          "fri 18:00-24:00",
          "sun 00:00-06:00");
  private static final List<String> DAYS =
      List.of("2026-12-24", "2026-12-24 to 2027-01-02", "2027-03-01 to 2027-03-31");

  private static final List<String> ZONES =
      List.of("", "", " in Europe/Oslo", " in America/New_York", " in UTC", " in Asia/Kolkata");

  private static Set<ScheduleItem> items(List<String> members) {
    Set<ScheduleItem> out = new HashSet<>();
    members.forEach(member -> out.add(ScheduleItem.parse(member)));
    return out;
  }

  @Test
  void everyScheduleComesBackAsItWas() {
    int tried = 0;
    for (int seed = 0; seed < 300; seed++) {
      Random random = new Random(seed);
      List<String> members = new java.util.ArrayList<>();
      String zone = ZONES.get(random.nextInt(ZONES.size()));
      for (int i = random.nextInt(3); i > 0; i--) {
        members.add(WEEKLY.get(random.nextInt(WEEKLY.size())) + zone);
      }
      boolean weekly = !members.isEmpty();
      for (int i = members.isEmpty() ? 2 : random.nextInt(3); i > 0; i--) {
        members.add(DAYS.get(random.nextInt(DAYS.size())) + (weekly ? zone : ""));
      }
      boolean single =
          members.contains(
              "2026-12-24" + (weekly ? zone : "")); // where other days of the week never come
      if (single && members.stream().anyMatch(m -> !m.startsWith("2026-12-24"))) {
        continue;
      }
      String text =
          CalendarWriter.write(
              List.of(
                  new TermObject(ObjectKind.SCHEDULE, "ours + late", members, ""),
                  new TermObject(ObjectKind.SCHEDULE, "other", List.of("daily"), "")));
      tried++;
      List<CalendarReader.Read> read = CalendarReader.read(text);
      assertThat(read)
          .extracting(CalendarReader.Read::name)
          .containsExactly("ours + late", "other");
      assertThat(items(read.getFirst().members()))
          .as("%s as %s", members, text)
          .isEqualTo(items(members));
      assertThat(read.getLast().members()).containsExactly("daily");
    }
    assertThat(tried).isGreaterThan(100);
  }

  @Test
  void aScheduleThatNeverHoldsIsNotWritten() {
    TermObject never =
        new TermObject(ObjectKind.SCHEDULE, "never", List.of("sat-sun", "2026-12-24"), "");
    assertThatThrownBy(() -> CalendarWriter.write(List.of(never)))
        .isInstanceOf(InvalidDocument.class);
  }

  private static List<String> members(String calendar) {
    List<CalendarReader.Read> read = CalendarReader.read(calendar);
    assertThat(read).hasSize(1);
    assertThat(read.getFirst().name()).isEqualTo("Ferry");
    return read.getFirst().members();
  }

  @Test
  void daysByOneClockAndTimesByAnotherAreNotWritten() {
    for (List<String> members :
        List.of(List.of("daily", "2026-12-24 in Europe/Oslo"), List.of("2026-12-24 in UTC"))) {
      TermObject mixed = new TermObject(ObjectKind.SCHEDULE, "mixed", members, "");
      assertThatThrownBy(() -> CalendarWriter.write(List.of(mixed)))
          .isInstanceOf(InvalidDocument.class)
          .hasMessageContaining("clock");
    }
  }

  private static String calendar(String... lines) {
    return "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//EN\r\nBEGIN:VEVENT\r\nUID:1\r\n"
        + "DTSTAMP:20260101T000000Z\r\nSUMMARY:Ferry\r\n"
        + String.join("\r\n", lines)
        + "\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
  }

  @Test
  void whatOthersWriteIsRead() {
    assertThat(
            members(
                calendar(
                    "DTSTART;TZID=Europe/Lisbon:20261130T220000",
                    "DURATION:PT6H",
                    "RRULE:FREQ=WEEKLY;BYDAY=MO,FR;UNTIL=20261231")))
        .containsExactly(
            "mon,fri 22:00-04:00 in Europe/Lisbon", "2026-11-30 to 2026-12-31 in Europe/Lisbon");
    assertThat(
            members(
                calendar(
                    "DTSTART;TZID=America/New_York:20261130T200000",
                    "DTEND;TZID=America/New_York:20261130T210000",
                    "RRULE:FREQ=DAILY;UNTIL=20261205T013000Z")))
        .containsExactly(
            "daily 20:00-21:00 in America/New_York",
            "2026-11-30 to 2026-12-04 in America/New_York");
    assertThat(members(calendar("DTSTART:20261130T080000Z", "DTEND:20261130T090000Z")))
        .containsExactly("mon 08:00-09:00 in UTC", "2026-11-30 in UTC");
    assertThat(members(calendar("DTSTART;VALUE=DATE:20261224"))).containsExactly("2026-12-24");
    assertThat(
            members(
                calendar("DTSTART:20261130T000000", "DTEND:20261201T000000", "RRULE:FREQ=DAILY")))
        .containsExactly("daily");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "DTSTART,TZID=Harbour:20261130T080000;DTEND:20261130T090000 | TZID | a time zone",
        "DTSTART:20261130T080000 | DTEND | an end or a duration",
        "DTSTART:20261130T080000;DTEND:20261130T070000 | DTEND | after DTSTART",
        "DTSTART:20261130T080000;DTEND:20261205T090000;RRULE:FREQ=WEEKLY | DTEND | at most a day",
        "DTSTART:20261130T080000;DTEND:20261130T090000;RRULE:FREQ=MONTHLY | RRULE | FREQ=DAILY",
        "DTSTART:20261130T080000;DTEND:20261130T090000;RRULE:FREQ=WEEKLY,INTERVAL=2 | RRULE | FREQ",
        "DTSTART:20261130T080000;DTEND:20261130T090000;RRULE:FREQ=DAILY;EXDATE:20261201T080000"
            + " | EXDATE | no single days",
        "DTSTART:20261130T080000;DTEND:20261130T090000;RRULE:FREQ=DAILY,UNTIL=20260231 | times | exist",
        "SUMMARY:none | DTSTART | a date",
      })
  void whatAScheduleCannotSayIsRefusedWithItsPlace(String lines, String property, String expected) {
    String[] all = lines.split(";");
    for (int i = 0; i < all.length; i++) {
      all[i] = all[i].replace(',', ';');
    }
    assertThatThrownBy(() -> CalendarReader.read(calendar(all)))
        .isInstanceOf(InvalidDocument.class)
        .hasMessageContaining("event 1 \"")
        .hasMessageContaining(property)
        .hasMessageContaining(expected);
  }

  @Test
  void textThatIsNoCalendarIsRefused() {
    for (String text : List.of("", "hello", "BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n")) {
      assertThatThrownBy(() -> CalendarReader.read(text)).isInstanceOf(InvalidDocument.class);
    }
    String two =
        calendar("DTSTART:20261130T080000", "DTEND:20261130T090000", "RRULE:FREQ=DAILY")
            + calendar("DTSTART;VALUE=DATE:20261224");
    assertThat(members(two)).containsExactly("daily 08:00-09:00");
  }

  /** What the parser cannot read it leaves out, and then an event would hold at other times. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "RRULE:FREQ=DAILY;COUNT=3000000000",
        "RRULE:FREQ=DAILY;COUNT=1e3",
        "RRULE:FREQ=DAILY;INTERVAL=99999999999",
        "DURATION:P99999999999999W"
      })
  void whatCannotBeReadOfTimesIsRefusedWithItsLine(String property) {
    String calendar =
        String.join(
            "\r\n",
            "BEGIN:VCALENDAR",
            "VERSION:2.0",
            "BEGIN:VEVENT",
            "DTSTART:20261130T080000",
            property,
            "END:VEVENT",
            "END:VCALENDAR",
            "");
    assertThatThrownBy(() -> CalendarReader.read(calendar))
        .isInstanceOf(InvalidDocument.class)
        .hasMessageContaining("line 5, " + property.substring(0, property.indexOf(':')));
  }

  /** Whatever comes in, it is read or refused. */
  @Test
  void mutatedCalendarsNeverFailOtherwise() {
    String good =
        CalendarWriter.write(
            List.of(
                new TermObject(
                    ObjectKind.SCHEDULE,
                    "ours",
                    List.of("mon,wed 22:00-04:00 in Europe/Oslo", DAYS.get(1) + " in Europe/Oslo"),
                    "")));
    Random random = new Random(7);
    int refused = 0;
    for (int i = 0; i < 3000; i++) {
      StringBuilder text = new StringBuilder(good);
      for (int k = random.nextInt(4); k >= 0; k--) {
        int at = random.nextInt(text.length());
        switch (random.nextInt(3)) {
          case 0 -> text.setCharAt(at, (char) (32 + random.nextInt(95)));
          case 1 -> text.deleteCharAt(at);
          default -> text.insert(at, "\r\n");
        }
      }
      try {
        assertThat(CalendarReader.read(text.toString())).isNotEmpty();
      } catch (InvalidDocument e) {
        refused++;
      }
    }
    assertThat(refused).isPositive();
  }
}
