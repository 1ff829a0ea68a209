package dev.ironsieve.core.model;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;

/** Parses and formats times of the week and days. */
public final class ScheduleText {
  static final Pattern DAYS =
      Pattern.compile("(\\d{4}-\\d\\d-\\d\\d)(?: to (\\d{4}-\\d\\d-\\d\\d))?");
  static final Pattern WEEKLY =
      Pattern.compile("([a-z][a-z,-]*)(?: (\\d\\d)(?::(\\d\\d))?-(\\d\\d)(?::(\\d\\d))?)?");
  static final String IN = " in ";
  private static final List<String> NAMES =
      List.of("mon", "tue", "wed", "thu", "fri", "sat", "sun");

  private ScheduleText() {}

  static InvalidModel invalid(String found) {
    return new InvalidModel(
        "time",
        "days and a time of day such as weekdays 06:00-22:00 or mon,wed 22:00-04:00,"
            + " or a date such as 2026-12-24 or 2026-12-24 to 2026-12-26"
            + ", with a time zone behind it or not, such as daily 06:00-22:00 in Europe/Oslo",
        Names.quoted(found));
  }

  static int minute(String hours, String minutes, String text) {
    int minute = Integer.parseInt(hours) * 60 + (minutes == null ? 0 : Integer.parseInt(minutes));
    if (minute > ScheduleItem.DAY || (minutes != null && Integer.parseInt(minutes) > 59)) {
      throw invalid(text);
    }
    return minute;
  }

  static Set<DayOfWeek> days(String said, String text) {
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
  public static String minute(int minuteOfWeek) {
    return "%s %02d:%02d"
        .formatted(
            NAMES.get(minuteOfWeek / ScheduleItem.DAY),
            minuteOfWeek % ScheduleItem.DAY / 60,
            minuteOfWeek % 60);
  }

  /** The minute of the week of a local time. */
  public static int minuteOfWeek(LocalDateTime at) {
    return (at.getDayOfWeek().getValue() - 1) * ScheduleItem.DAY
        + at.toLocalTime().toSecondOfDay() / 60;
  }

  /** The minute of the week, or -1. */
  public static int minuteOfWeek(String text) {
    int space = text.indexOf(' ');
    int day = space < 0 ? -1 : NAMES.indexOf(text.substring(0, space).toLowerCase(Locale.ROOT));
    if (day < 0) {
      return -1;
    }
    try {
      return day * ScheduleItem.DAY
          + LocalTime.parse(text.substring(space + 1)).toSecondOfDay() / 60;
    } catch (DateTimeException e) {
      return -1;
    }
  }
}
