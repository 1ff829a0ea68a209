package dev.ironsieve.formats.icalendar;

import biweekly.Biweekly;
import biweekly.ICalendar;
import biweekly.component.VEvent;
import biweekly.io.ParseWarning;
import biweekly.io.TimezoneAssignment;
import biweekly.property.DateOrDateTimeProperty;
import biweekly.property.RawProperty;
import biweekly.util.ByDay;
import biweekly.util.DateTimeComponents;
import biweekly.util.Frequency;
import biweekly.util.ICalDate;
import biweekly.util.Recurrence;
import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.ScheduleItem;
import dev.ironsieve.core.model.TimeZones;
import dev.ironsieve.formats.Fault;
import dev.ironsieve.formats.InvalidDocument;
import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Reads a calendar as schedules, one for all events with the same summary: events that come back
 * each day or week, whole days, and single events. What a schedule cannot say is refused and never
 * left out.
 */
public final class CalendarReader {
  /** Longest calendar that is read, in characters. */
  public static final int MOST_TEXT = 1_000_000;

  private static final int MOST_EVENTS = 1000;

  /** Properties that say when an event is. */
  private static final Set<String> MEANT =
      Set.of("DTSTART", "DTEND", "DURATION", "RRULE", "EXRULE", "EXDATE", "RDATE");

  private final List<Fault> faults = new ArrayList<>();
  private final ICalendar calendar;
  private final Map<String, Set<Part>> parts = new LinkedHashMap<>(); // by summary

  private CalendarReader(ICalendar calendar) {
    this.calendar = calendar;
  }

  /**
   * A schedule.
   *
   * @param name the summary of its events; empty if they have none
   * @param members as a schedule says them
   */
  public record Read(String name, List<String> members) {}

  /**
   * One event.
   *
   * @param weekly times of the week; null for whole days
   * @param days null for always
   */
  private record Part(String weekly, String days) {}

  /**
   * @throws InvalidDocument with every event that a schedule cannot say
   */
  public static List<Read> read(String text) {
    if (text.length() > MOST_TEXT) {
      throw new InvalidDocument(
          "calendar", "at most " + MOST_TEXT + " characters", text.length() + "");
    }
    List<List<ParseWarning>> warnings = new ArrayList<>();
    ICalendar calendar = Biweekly.parse(text).warnings(warnings).first();
    if (calendar == null) {
      throw new InvalidDocument("calendar", "an iCalendar (RFC 5545) with events", "none");
    }
    List<Fault> unreadable =
        warnings.stream()
            .flatMap(List::stream)
            .filter(warning -> MEANT.contains(String.valueOf(warning.getPropertyName())))
            .limit(InvalidDocument.MAX_FAULTS)
            .map(CalendarReader::fault)
            .toList();
    if (!unreadable.isEmpty()) {
      throw new InvalidDocument(unreadable);
    }
    return new CalendarReader(calendar).read();
  }

  /** A property that the parser drops in part would make the event hold at other times. */
  private static Fault fault(ParseWarning warning) {
    String line = warning.getLineNumber() == null ? "" : "line " + warning.getLineNumber() + ", ";
    return new Fault(
        line + warning.getPropertyName(), "a value as RFC 5545 has it", warning.getMessage());
  }

  private List<Read> read() {
    List<VEvent> events = calendar.getEvents();
    if (events.isEmpty() || events.size() > MOST_EVENTS) {
      throw new InvalidDocument("calendar", "1 to " + MOST_EVENTS + " events", events.size() + "");
    }
    for (int i = 0; i < events.size(); i++) {
      VEvent event = events.get(i);
      String said = event.getSummary() == null ? null : event.getSummary().getValue();
      String name = said == null ? "" : said.strip();
      Event read =
          new Event(
              "event " + (i + 1) + (said == null ? "" : " \"" + said + "\""),
              event,
              parts.computeIfAbsent(name, n -> new LinkedHashSet<>()));
      try {
        read.read();
      } catch (DateTimeException | ArithmeticException e) {
        read.refuse("times", "days and times that exist", e.getMessage());
      }
    }
    if (!faults.isEmpty()) {
      throw new InvalidDocument(faults);
    }
    List<Read> out = new ArrayList<>();
    parts.forEach((name, own) -> out.add(new Read(name, members(name, own))));
    return List.copyOf(out);
  }

  /** A schedule has each of its times on each of its days. */
  private static List<String> members(String name, Set<Part> parts) {
    Set<String> weekly = new LinkedHashSet<>();
    Set<String> days = new LinkedHashSet<>();
    parts.forEach(part -> weekly.add(part.weekly));
    parts.forEach(part -> days.add(part.days));
    boolean mixed =
        (weekly.contains(null) && weekly.size() > 1) || (days.contains(null) && days.size() > 1);
    if (mixed || parts.size() != weekly.size() * days.size()) {
      throw new InvalidDocument(
          "calendar, \"" + name + "\"",
          "events that all keep the same days, so that one schedule can say them",
          parts.stream()
              .map(part -> part.weekly + " on " + (part.days == null ? "all days" : part.days))
              .collect(Collectors.joining("; ")));
    }
    weekly.remove(null);
    days.remove(null);
    List<String> out = new ArrayList<>(weekly);
    out.addAll(days);
    return out;
  }

  private final class Event {
    private final String place;
    private final VEvent event;
    private final Set<Part> parts;
    private ZoneId zone; // null for the gateway's

    Event(String place, VEvent event, Set<Part> parts) {
      this.place = place;
      this.event = event;
      this.parts = parts;
    }

    private void refuse(String property, String expected, Object found) {
      faults.add(new Fault(place + ", " + property, expected, String.valueOf(found)));
    }

    void read() {
      LocalDateTime start = local("DTSTART", event.getDateStart());
      if (start == null) {
        return;
      }
      boolean whole = !event.getDateStart().getValue().hasTime();
      if (!whole && !readZone()) {
        return;
      }
      LocalDateTime end = end(start, whole);
      if (end == null) {
        return;
      }
      if (!event.getExceptionDates().isEmpty() || !event.getRecurrenceDates().isEmpty()) {
        refuse("EXDATE or RDATE", "no single days in or out", "some");
        return;
      }
      Recurrence rule =
          event.getRecurrenceRule() == null ? null : event.getRecurrenceRule().getValue();
      if (rule == null && whole) {
        parts.add(new Part(null, span(start.toLocalDate(), end.toLocalDate().minusDays(1))));
        return;
      }
      if (Duration.between(start, end).compareTo(Duration.ofDays(1)) > 0) {
        refuse("DTEND", "at most a day after DTSTART", end);
        return;
      }
      Set<DayOfWeek> days = rule == null ? EnumSet.of(start.getDayOfWeek()) : days(rule, start);
      if (days == null) {
        return;
      }
      String time = whole ? "" : " " + time(start) + "-" + time(start, end);
      String weekly = names(days) + (time.equals(" 00:00-24:00") ? "" : time);
      LocalDate last =
          rule == null
              ? start.toLocalDate()
              : rule.getUntil() == null ? null : until(rule.getUntil()).toLocalDate();
      String in = zone == null ? "" : " in " + zone;
      parts.add(new Part(weekly + in, last == null ? null : said(start.toLocalDate(), last) + in));
    }

    /** Sets the time zone of its start; false if it is unknown. */
    private boolean readZone() {
      DateTimeComponents raw = event.getDateStart().getValue().getRawComponents();
      if (raw != null && raw.isUtc()) {
        zone = GatewaySettings.UTC;
        return true;
      }
      TimezoneAssignment said = calendar.getTimezoneInfo().getTimezone(event.getDateStart());
      String unknown = event.getDateStart().getParameters().getTimezoneId();
      if (said == null && unknown == null) {
        return true;
      }
      String id = said == null ? unknown : said.getTimeZone().getID();
      try {
        zone = TimeZones.parse(id);
        return true;
      } catch (InvalidModel e) {
        refuse("DTSTART, TZID", e.expected(), id);
        return false;
      }
    }

    /** The end of coming back, by the event's own clock (RFC 5545, section 3.3.10). */
    private LocalDateTime until(ICalDate until) {
      DateTimeComponents raw = until.getRawComponents();
      return zone != null && raw.hasTime() && raw.isUtc()
          ? CalendarReader.local(until)
              .atZone(ZoneOffset.UTC)
              .withZoneSameInstant(zone)
              .toLocalDateTime()
          : CalendarReader.local(until);
    }

    /** The days as {@link CalendarWriter} says them, if it does and that fits. */
    private String said(LocalDate first, LocalDate last) {
      RawProperty own = event.getExperimentalProperty(CalendarWriter.DAYS);
      if (own != null
          && ScheduleItem.isOne(own.getValue())
          && ScheduleItem.parse(own.getValue()) instanceof ScheduleItem.Days days
          && !days.first().isAfter(first)
          && days.first().isAfter(first.minusWeeks(1))
          && days.last().equals(last)) {
        return span(days.first(), days.last());
      }
      return span(first, last);
    }

    private LocalDateTime end(LocalDateTime start, boolean whole) {
      if (event.getDateEnd() != null) {
        LocalDateTime end = local("DTEND", event.getDateEnd());
        if (end != null && !end.isAfter(start)) {
          refuse("DTEND", "a time after DTSTART", end);
          return null;
        }
        return end;
      }
      if (event.getDuration() != null && event.getDuration().getValue() != null) {
        return start.plus(Duration.ofMillis(event.getDuration().getValue().toMillis()));
      }
      if (whole) {
        return start.plusDays(1);
      }
      refuse("DTEND", "an end or a duration", "neither");
      return null;
    }

    private LocalDateTime local(String name, DateOrDateTimeProperty property) {
      if (property == null || property.getValue() == null) {
        refuse(name, "a date, with a time or not", "nothing");
        return null;
      }
      try {
        return CalendarReader.local(property.getValue());
      } catch (DateTimeException e) {
        refuse(name, "a date, with a time or not", property.getValue());
        return null;
      }
    }

    private Set<DayOfWeek> days(Recurrence rule, LocalDateTime start) {
      boolean daily = rule.getFrequency() == Frequency.DAILY;
      boolean plain =
          (daily || rule.getFrequency() == Frequency.WEEKLY)
              && (rule.getInterval() == null || rule.getInterval() == 1)
              && rule.getCount() == null
              && rule.getByMonth().isEmpty()
              && rule.getByMonthDay().isEmpty()
              && rule.getByHour().isEmpty()
              && rule.getBySetPos().isEmpty()
              && rule.getByDay().stream().allMatch(day -> day.getNum() == null);
      if (!plain) {
        refuse(
            "RRULE",
            "FREQ=DAILY or FREQ=WEEKLY, with BYDAY and UNTIL or not",
            "FREQ=" + rule.getFrequency() + " and more");
        return null;
      }
      Set<DayOfWeek> out = EnumSet.noneOf(DayOfWeek.class);
      for (ByDay day : rule.getByDay()) {
        out.add(DayOfWeek.valueOf(day.getDay().name()));
      }
      if (out.isEmpty()) {
        return daily ? EnumSet.allOf(DayOfWeek.class) : EnumSet.of(start.getDayOfWeek());
      }
      return out;
    }
  }

  private static LocalDateTime local(ICalDate date) {
    DateTimeComponents raw = date.getRawComponents();
    LocalDate day = LocalDate.of(raw.getYear(), raw.getMonth(), raw.getDate());
    return raw.hasTime() ? day.atTime(raw.getHour(), raw.getMinute()) : day.atStartOfDay();
  }

  private static String time(LocalDateTime at) {
    return "%02d:%02d".formatted(at.getHour(), at.getMinute());
  }

  /** The end of a day is 24:00, where it begins on it. */
  private static String time(LocalDateTime start, LocalDateTime end) {
    boolean midnight = end.equals(start.toLocalDate().plusDays(1).atStartOfDay());
    return midnight ? "24:00" : time(end);
  }

  private static String span(LocalDate first, LocalDate last) {
    return first.equals(last) ? first.toString() : first + " to " + last;
  }

  private static String names(Set<DayOfWeek> days) {
    if (days.size() == DayOfWeek.values().length) {
      return "daily";
    }
    return days.stream()
        .map(day -> day.name().substring(0, 3).toLowerCase(Locale.ROOT))
        .collect(Collectors.joining(","));
  }
}
