package dev.ironsieve.core.model;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Times of the week, or days, in the gateway's time zone: {@code weekdays 06:00-22:00}, {@code
 * mon,wed 22:00-04:00} (on into the next morning), {@code sat-sun}, {@code daily 11:30-13:00};
 * {@code 2026-12-24}, {@code 2026-12-24 to 2026-12-26}.
 */
public sealed interface ScheduleItem {
  /** Minutes of a day. */
  int DAY = 24 * 60;

  /** Minutes of a week, which begins on Monday at midnight. */
  int WEEK = 7 * DAY;

  /**
   * @param from first minute of each day
   * @param to the minute behind the last; at or below {@code from} on the next day
   */
  record Weekly(Set<DayOfWeek> days, int from, int to) implements ScheduleItem {
    public Weekly {
      days = Set.copyOf(days);
    }

    /** Whether it holds at a minute of the week. */
    boolean holds(int minute) {
      for (DayOfWeek day : days) {
        int start = (day.getValue() - 1) * DAY + from;
        int length = to > from ? to - from : to - from + DAY;
        if (Math.floorMod(minute - start, WEEK) < length) {
          return true;
        }
      }
      return false;
    }
  }

  /**
   * @param first included
   * @param last included
   */
  record Days(LocalDate first, LocalDate last) implements ScheduleItem {}

  /**
   * Reads one.
   *
   * @throws InvalidModel if the text is none
   */
  static ScheduleItem parse(String text) {
    String lower = text.strip().toLowerCase(Locale.ROOT);
    Matcher days = Text.DAYS.matcher(lower);
    if (days.matches()) {
      try {
        LocalDate first = LocalDate.parse(days.group(1));
        LocalDate last = days.group(2) == null ? first : LocalDate.parse(days.group(2));
        if (!last.isBefore(first)) {
          return new Days(first, last);
        }
      } catch (DateTimeException e) {
        throw Text.invalid(text);
      }
    }
    Matcher weekly = Text.WEEKLY.matcher(lower);
    if (!weekly.matches()) {
      throw Text.invalid(text);
    }
    Set<DayOfWeek> on = Text.days(weekly.group(1), text);
    if (weekly.group(2) == null) {
      return new Weekly(on, 0, DAY);
    }
    int from = Text.minute(weekly.group(2), weekly.group(3), text);
    int to = Text.minute(weekly.group(4), weekly.group(5), text);
    if (from == DAY || from == to) {
      throw Text.invalid(text);
    }
    return new Weekly(on, from, to);
  }

  /** Whether {@link #parse} reads it. */
  static boolean isOne(String text) {
    try {
      parse(text);
      return true;
    } catch (InvalidModel e) {
      return false;
    }
  }

  /** How it is written. */
  final class Text {
    private static final Pattern DAYS =
        Pattern.compile("(\\d{4}-\\d\\d-\\d\\d)(?: to (\\d{4}-\\d\\d-\\d\\d))?");
    private static final Pattern WEEKLY =
        Pattern.compile("([a-z][a-z,-]*)(?: (\\d\\d)(?::(\\d\\d))?-(\\d\\d)(?::(\\d\\d))?)?");
    private static final List<String> NAMES =
        List.of("mon", "tue", "wed", "thu", "fri", "sat", "sun");

    private Text() {}

    private static InvalidModel invalid(String found) {
      return new InvalidModel(
          "time",
          "days and a time of day such as weekdays 06:00-22:00 or mon,wed 22:00-04:00,"
              + " or a date such as 2026-12-24 or 2026-12-24 to 2026-12-26",
          Names.quoted(found));
    }

    private static int minute(String hours, String minutes, String text) {
      int minute = Integer.parseInt(hours) * 60 + (minutes == null ? 0 : Integer.parseInt(minutes));
      if (minute > DAY || (minutes != null && Integer.parseInt(minutes) > 59)) {
        throw invalid(text);
      }
      return minute;
    }

    private static Set<DayOfWeek> days(String said, String text) {
      Set<DayOfWeek> out = EnumSet.noneOf(DayOfWeek.class);
      for (String part : said.split(",", -1)) {
        switch (part) {
          case "daily" -> out.addAll(EnumSet.allOf(DayOfWeek.class));
          case "weekdays" -> out.addAll(EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY));
          case "weekends" -> out.addAll(EnumSet.range(DayOfWeek.SATURDAY, DayOfWeek.SUNDAY));
          default -> {
            int dash = part.indexOf('-');
            int first = NAMES.indexOf(dash < 0 ? part : part.substring(0, dash));
            int last = dash < 0 ? first : NAMES.indexOf(part.substring(dash + 1));
            if (first < 0 || last < 0) {
              throw invalid(text);
            }
            for (int day = first; ; day = (day + 1) % NAMES.size()) {
              out.add(DayOfWeek.of(day + 1));
              if (day == last) {
                break;
              }
            }
          }
        }
      }
      return out;
    }

    /** {@code mon 06:30}. */
    static String minute(int minuteOfWeek) {
      return "%s %02d:%02d"
          .formatted(NAMES.get(minuteOfWeek / DAY), minuteOfWeek % DAY / 60, minuteOfWeek % 60);
    }

    /** The minute of the week, or -1. */
    static int minuteOfWeek(String text) {
      int space = text.indexOf(' ');
      int day = space < 0 ? -1 : NAMES.indexOf(text.substring(0, space).toLowerCase(Locale.ROOT));
      if (day < 0) {
        return -1;
      }
      try {
        return day * DAY + LocalTime.parse(text.substring(space + 1)).toSecondOfDay() / 60;
      } catch (DateTimeException e) {
        return -1;
      }
    }
  }
}
