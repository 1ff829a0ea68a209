package dev.ironsieve.formats.icalendar;

import biweekly.ICalendar;
import biweekly.component.DaylightSavingsTime;
import biweekly.component.Observance;
import biweekly.component.StandardTime;
import biweekly.component.VTimezone;
import biweekly.io.TimezoneAssignment;
import biweekly.property.ICalProperty;
import biweekly.util.DateTimeComponents;
import biweekly.util.ICalDate;
import biweekly.util.UtcOffset;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.zone.ZoneOffsetTransition;
import java.time.zone.ZoneRules;
import java.util.HashMap;
import java.util.Map;
import java.util.TimeZone;

/**
 * The time zones of a calendar's events, each described once, change by change (RFC 5545, section
 * 3.6.5), so that readers need no list of their own.
 */
final class Zones {
  private static final Instant FIRST = Instant.parse("2020-01-01T00:00:00Z");
  private static final Instant END = Instant.parse("2040-01-01T00:00:00Z");

  private final ICalendar calendar;
  private final Map<ZoneId, TimezoneAssignment> known = new HashMap<>();

  Zones(ICalendar calendar) {
    this.calendar = calendar;
  }

  /** Writes the time zone of a time; nothing for none. */
  void put(ICalProperty time, ZoneId zone) {
    if (zone == null) {
      return;
    }
    TimezoneAssignment assignment =
        known.computeIfAbsent(
            zone, z -> new TimezoneAssignment(TimeZone.getTimeZone(z), described(z)));
    calendar.getTimezoneInfo().setTimezone(time, assignment);
  }

  private static VTimezone described(ZoneId zone) {
    ZoneRules rules = zone.getRules();
    VTimezone out = new VTimezone(zone.getId());
    ZoneOffset at = rules.getOffset(FIRST);
    out.addComponent(observance(rules, FIRST, LocalDateTime.ofInstant(FIRST, zone), at, at));
    ZoneOffsetTransition next = rules.nextTransition(FIRST);
    while (next != null && next.getInstant().isBefore(END)) {
      out.addComponent(
          observance(
              rules,
              next.getInstant(),
              next.getDateTimeBefore(),
              next.getOffsetBefore(),
              next.getOffsetAfter()));
      next = rules.nextTransition(next.getInstant());
    }
    return out;
  }

  private static Observance observance(
      ZoneRules rules, Instant at, LocalDateTime shown, ZoneOffset before, ZoneOffset after) {
    Observance out = rules.isDaylightSavings(at) ? new DaylightSavingsTime() : new StandardTime();
    out.setDateStart(
        new ICalDate(
            new DateTimeComponents(
                shown.getYear(),
                shown.getMonthValue(),
                shown.getDayOfMonth(),
                shown.getHour(),
                shown.getMinute(),
                shown.getSecond(),
                false),
            true));
    out.setTimezoneOffsetFrom(offset(before));
    out.setTimezoneOffsetTo(offset(after));
    return out;
  }

  private static UtcOffset offset(ZoneOffset offset) {
    return new UtcOffset(offset.getTotalSeconds() * 1000L);
  }
}
