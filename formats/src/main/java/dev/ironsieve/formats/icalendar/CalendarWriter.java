package dev.ironsieve.formats.icalendar;

import biweekly.Biweekly;
import biweekly.ICalVersion;
import biweekly.ICalendar;
import biweekly.component.VEvent;
import biweekly.property.DateEnd;
import biweekly.property.DateStart;
import biweekly.property.ProductId;
import biweekly.util.DateTimeComponents;
import biweekly.util.Frequency;
import biweekly.util.ICalDate;
import biweekly.util.Recurrence;
import dev.ironsieve.core.model.ScheduleItem;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.formats.InvalidDocument;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Date;
import java.util.List;
import java.util.Objects;
import java.util.TreeSet;

/**
 * Writes a schedule as a calendar: an event each week for each time of the week, from the first to
 * the last of each run of days; a whole day, or several, where it has only days. Times that say no
 * time zone are local, since they are the gateway's (RFC 5545, section 3.3.5, form 1); others are
 * in theirs (form 3; UTC in form 2). Events of one schedule have its name as their summary.
 */
public final class CalendarWriter {
  /** A Monday; where a schedule has no days, its first week. */
  private static final LocalDate FIRST = LocalDate.of(2024, 1, 1);

  /** The days as they are written here, since an event begins on the first that fits. */
  static final String DAYS = "X-IRON-SIEVE-DAYS";

  private CalendarWriter() {}

  /**
   * @throws InvalidDocument for a schedule that never holds, or that asks for days by one clock and
   *     for times of the week by another
   */
  public static String write(List<TermObject> schedules) {
    ICalendar calendar = new ICalendar();
    calendar.setVersion(ICalVersion.V2_0);
    calendar.setProductId(new ProductId("-//Iron Sieve//Schedules//EN"));
    calendar.getTimezoneInfo().setGlobalFloatingTime(true);
    Zones zones = new Zones(calendar);
    schedules.forEach(schedule -> add(schedule, calendar, zones));
    return Biweekly.write(calendar).go();
  }

  private static void add(TermObject schedule, ICalendar calendar, Zones zones) {
    List<ScheduleItem.Weekly> weekly = new ArrayList<>();
    List<ScheduleItem.Days> days = new ArrayList<>();
    for (String member : schedule.members()) {
      switch (ScheduleItem.parse(member)) {
        case ScheduleItem.Weekly w -> weekly.add(w);
        case ScheduleItem.Days d -> days.add(d);
      }
    }
    List<VEvent> events = new ArrayList<>();
    if (weekly.isEmpty()) {
      days.forEach(span -> events.add(whole(schedule, span)));
    }
    for (ScheduleItem.Weekly w : weekly) {
      if (days.isEmpty()) {
        events.add(weekly(w, null, zones));
      }
      for (ScheduleItem.Days span : days) {
        if (!Objects.equals(w.zone(), span.zone())) {
          throw refused(schedule, "days and times of the week by one clock", "two");
        }
        if (comes(w, span)) {
          events.add(weekly(w, span, zones));
        }
      }
    }
    if (events.isEmpty()) {
      throw refused(schedule, "a time of the week on one of its days", "none");
    }
    for (int i = 0; i < events.size(); i++) {
      VEvent event = events.get(i);
      event.setUid(
          "%08x-%d@iron-sieve.example"
              .formatted(List.of(schedule.name(), schedule.members()).hashCode(), i));
      event.setSummary(schedule.name());
      event.setDateTimeStamp(new Date(0)); // the same schedule is the same calendar
      calendar.addEvent(event);
    }
  }

  private static InvalidDocument refused(TermObject schedule, String expected, String found) {
    return new InvalidDocument("schedule \"" + schedule.name() + "\"", expected, found);
  }

  private static boolean comes(ScheduleItem.Weekly w, ScheduleItem.Days span) {
    return !firstDay(w, span.first()).isAfter(span.last());
  }

  private static LocalDate firstDay(ScheduleItem.Weekly w, LocalDate from) {
    LocalDate day = from;
    while (!w.days().contains(day.getDayOfWeek())) {
      day = day.plusDays(1);
    }
    return day;
  }

  private static VEvent whole(TermObject schedule, ScheduleItem.Days span) {
    if (span.zone() != null) { // whole days have none (RFC 5545, section 3.3.4)
      throw refused(schedule, "whole days by the gateway's clock", "others");
    }
    VEvent event = new VEvent();
    event.setDateStart(date(span.first()), false);
    event.setDateEnd(date(span.last().plusDays(1)), false);
    return event;
  }

  /**
   * @param span null for always
   */
  private static VEvent weekly(ScheduleItem.Weekly w, ScheduleItem.Days span, Zones zones) {
    LocalDate day = firstDay(w, span == null ? FIRST : span.first());
    LocalDateTime start = day.atStartOfDay().plusMinutes(w.from());
    LocalDateTime end = day.atStartOfDay().plusMinutes(w.to());
    VEvent event = new VEvent();
    DateStart from = new DateStart(time(start, w.zone()), true);
    DateEnd to = new DateEnd(time(w.to() > w.from() ? end : end.plusDays(1), w.zone()), true);
    event.setDateStart(from);
    event.setDateEnd(to);
    zones.put(from, w.zone());
    zones.put(to, w.zone());
    Recurrence.Builder rule = new Recurrence.Builder(Frequency.WEEKLY);
    new TreeSet<>(w.days()).forEach(d -> rule.byDay(BY_DAY[d.getValue() - 1]));
    if (span != null) {
      rule.until(time(span.last().atTime(23, 59, 59), w.zone()));
      event.addExperimentalProperty(DAYS, span.first() + " to " + span.last());
    }
    event.setRecurrenceRule(rule.build());
    return event;
  }

  private static final biweekly.util.DayOfWeek[] BY_DAY =
      new biweekly.util.DayOfWeek[DayOfWeek.values().length];

  static {
    for (DayOfWeek day : DayOfWeek.values()) {
      BY_DAY[day.getValue() - 1] = biweekly.util.DayOfWeek.valueOf(day.name());
    }
  }

  private static ICalDate date(LocalDate day) {
    return new ICalDate(
        new DateTimeComponents(day.getYear(), day.getMonthValue(), day.getDayOfMonth()), false);
  }

  private static ICalDate time(LocalDateTime at, ZoneId zone) {
    if (zone != null) {
      return new ICalDate(Date.from(at.atZone(zone).toInstant()), true);
    }
    return new ICalDate(
        new DateTimeComponents(
            at.getYear(),
            at.getMonthValue(),
            at.getDayOfMonth(),
            at.getHour(),
            at.getMinute(),
            at.getSecond(),
            false),
        true);
  }
}
