package dev.ironsieve.core.model;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;

/**
 * Times of the week, or days: {@code weekdays 06:00-22:00}, {@code mon,wed 22:00-04:00} (on into
 * the next morning), {@code sat-sun}, {@code daily 11:30-13:00}; {@code 2026-12-24}, {@code
 * 2026-12-24 to 2026-12-26}. They are meant by the gateway's clock, or by that of a time zone that
 * stands behind them: {@code weekdays 06:00-22:00 in Europe/Oslo}.
 */
public sealed interface ScheduleItem {
  /** Minutes of a day. */
  int DAY = 24 * 60;

  /** Minutes of a week, which begins on Monday at midnight. */
  int WEEK = 7 * DAY;

  /**
   * @param from first minute of each day
   * @param to the minute behind the last; at or below {@code from} on the next day
   * @param zone null for the gateway's
   */
  record Weekly(Set<DayOfWeek> days, int from, int to, ZoneId zone) implements ScheduleItem {
    public Weekly {
      days = Set.copyOf(days);
    }

    /** The minute of the week at which it begins on a day. */
    public int start(DayOfWeek day) {
      return (day.getValue() - 1) * DAY + from;
    }

    /** Its length in minutes, at most a day. */
    public int length() {
      return to > from ? to - from : to - from + DAY;
    }
  }

  /**
   * @param first included
   * @param last included
   * @param zone null for the gateway's
   */
  record Days(LocalDate first, LocalDate last, ZoneId zone) implements ScheduleItem {
    /** As a first day: ever before. */
    public static final LocalDate EVER_BEFORE = LocalDate.of(1970, 1, 1);

    /** As a last day: ever after. */
    public static final LocalDate EVER_AFTER = LocalDate.of(2999, 12, 31);
  }

  /** The time zone by whose clock it is meant; null for the gateway's. */
  ZoneId zone();

  /**
   * Reads one.
   *
   * @throws InvalidModel if the text is none
   */
  static ScheduleItem parse(String text) {
    int in = text.indexOf(ScheduleText.IN);
    ZoneId zone =
        in < 0 ? null : TimeZones.parse(text.substring(in + ScheduleText.IN.length()).strip());
    String lower = (in < 0 ? text : text.substring(0, in)).strip().toLowerCase(Locale.ROOT);
    Matcher days = ScheduleText.DAYS.matcher(lower);
    if (days.matches()) {
      try {
        LocalDate first = LocalDate.parse(days.group(1));
        LocalDate last = days.group(2) == null ? first : LocalDate.parse(days.group(2));
        if (!last.isBefore(first)) {
          return new Days(first, last, zone);
        }
      } catch (DateTimeException e) {
        throw ScheduleText.invalid(text);
      }
    }
    Matcher weekly = ScheduleText.WEEKLY.matcher(lower);
    if (!weekly.matches()) {
      throw ScheduleText.invalid(text);
    }
    Set<DayOfWeek> on = ScheduleText.days(weekly.group(1), text);
    if (weekly.group(2) == null) {
      return new Weekly(on, 0, DAY, zone);
    }
    int from = ScheduleText.minute(weekly.group(2), weekly.group(3), text);
    int to = ScheduleText.minute(weekly.group(4), weekly.group(5), text);
    if (from == DAY || from == to) {
      throw ScheduleText.invalid(text);
    }
    return new Weekly(on, from, to, zone);
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
}
