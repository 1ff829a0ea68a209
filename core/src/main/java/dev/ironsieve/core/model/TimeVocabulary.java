package dev.ironsieve.core.model;

import dev.ironsieve.core.sets.IntSet;
import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/**
 * What rules can say of time, made of the times that they and schedules mention. The week is cut
 * into slices, and the days into spans, where one of them begins or ends; a value is a slice in a
 * span:
 *
 * <pre>
 *   "mon 06:00"                         from then to the next slice, if no rule speaks of dates
 *   "mon 06:00 before 2026-12-24"       the first span
 *   "mon 06:00 from 2026-12-24"         any other span
 *   "mon 06:00 from 2026-12-24T23:00"   one that begins within a day
 * </pre>
 *
 * <p>All of it is the gateway's local time. A time in another time zone is moved by how much the
 * clocks differ; where that changes in the course of a year, a span begins.
 */
final class TimeVocabulary {
  private static final int MOST_VALUES = 20_000;
  private static final String BEFORE = " before ";
  private static final String FROM = " from ";

  private TimeVocabulary() {}

  /** One time, and how its clock goes. */
  private record Timed(ScheduleItem item, Clocks clocks) {
    boolean holds(int minute, LocalDateTime span) {
      int ahead = clocks.ahead(span);
      return switch (item) {
        case ScheduleItem.Weekly w -> w.holds(Math.floorMod(minute + ahead, ScheduleItem.WEEK));
        case ScheduleItem.Days d -> {
          LocalDate day = span.plusMinutes(ahead).toLocalDate();
          yield !day.isBefore(d.first()) && !day.isAfter(d.last());
        }
      };
    }

    void cut(Set<Integer> slices, Set<LocalDateTime> spans) {
      spans.addAll(clocks.changes());
      switch (item) {
        case ScheduleItem.Weekly weekly -> {
          for (DayOfWeek day : weekly.days()) {
            int start = (day.getValue() - 1) * ScheduleItem.DAY;
            int end = weekly.to() + (weekly.to() > weekly.from() ? 0 : ScheduleItem.DAY);
            for (int ahead : clocks.allAhead()) {
              slices.add(Math.floorMod(start + weekly.from() - ahead, ScheduleItem.WEEK));
              slices.add(Math.floorMod(start + end - ahead, ScheduleItem.WEEK));
            }
          }
        }
        case ScheduleItem.Days days -> {
          spans.add(clocks.here(days.first().atStartOfDay()));
          spans.add(clocks.here(days.last().plusDays(1).atStartOfDay()));
        }
      }
    }
  }

  /** What one schedule or literal says. */
  private record Asked(String name, List<Timed> times) {
    static Asked of(String name, List<String> members, ZoneId gateway) {
      List<Timed> times = new ArrayList<>();
      for (String member : members) {
        ScheduleItem item = ScheduleItem.parse(member);
        times.add(new Timed(item, Clocks.between(gateway, item.zone())));
      }
      return new Asked(name, times);
    }

    /** At one of its times of the week, if any, on one of its days, if any. */
    boolean holds(int minute, LocalDateTime span) {
      boolean weekly = false;
      boolean inWeek = false;
      boolean days = false;
      boolean onDay = false;
      for (Timed time : times) {
        boolean holds = time.holds(minute, span);
        if (time.item instanceof ScheduleItem.Weekly) {
          weekly = true;
          inWeek |= holds;
        } else {
          days = true;
          onDay |= holds;
        }
      }
      return (!weekly || inWeek) && (!days || onDay);
    }
  }

  /**
   * @param literals times that rules say themselves, as they are written
   * @param gateway the gateway's time zone
   */
  static Vocabulary of(List<TermObject> schedules, Collection<String> literals, ZoneId gateway) {
    List<Asked> asked = new ArrayList<>();
    schedules.forEach(s -> asked.add(Asked.of(s.name(), s.members(), gateway)));
    literals.forEach(literal -> asked.add(Asked.of(literal, List.of(literal), gateway)));
    TreeSet<Integer> slices = new TreeSet<>(Set.of(0));
    TreeSet<LocalDateTime> spans = new TreeSet<>(); // where the second and later ones begin
    asked.forEach(one -> one.times.forEach(time -> time.cut(slices, spans)));
    Cuts cuts = new Cuts(List.copyOf(slices), List.copyOf(spans));
    List<Vocabulary.Term> terms = new ArrayList<>();
    asked.forEach(one -> terms.add(new Vocabulary.Term(one.name, cuts.where(one))));
    return new Vocabulary(Coordinate.TIME, "as written", cuts.names(), terms);
  }

  /**
   * @param slices first minutes
   * @param spans when all spans but the first begin
   */
  private record Cuts(List<Integer> slices, List<LocalDateTime> spans) {
    Cuts {
      long values = (long) slices.size() * (spans.size() + 1);
      if (values > MOST_VALUES) {
        throw new InvalidModel(
            "schedules",
            "at most " + MOST_VALUES + " parts of weeks and spans of days",
            values + "");
      }
    }

    List<String> names() {
      List<String> out = new ArrayList<>();
      for (int span = 0; span <= spans.size(); span++) {
        for (int slice : slices) {
          String name = ScheduleText.minute(slice);
          out.add(
              spans.isEmpty()
                  ? name
                  : span == 0
                      ? name + BEFORE + said(spans.get(0))
                      : name + FROM + said(spans.get(span - 1)));
        }
      }
      return out;
    }

    private static String said(LocalDateTime time) {
      boolean midnight = time.toLocalTime().equals(LocalTime.MIDNIGHT);
      return midnight ? time.toLocalDate().toString() : time.toString();
    }

    /** The values whose first moment fits; it stands for the whole value. */
    IntSet where(Asked asked) {
      IntSet.Builder out = new IntSet.Builder();
      int value = 0;
      for (int span = 0; span <= spans.size(); span++) {
        LocalDateTime first =
            span > 0
                ? spans.get(span - 1)
                : spans.isEmpty() ? LocalDate.EPOCH.atStartOfDay() : spans.get(0).minusMinutes(1);
        for (int slice : slices) {
          if (asked.holds(slice, first)) {
            out.addInOrder(value, value);
          }
          value++;
        }
      }
      return out.build();
    }
  }

  /**
   * The name of the value that a local time has: of {@code mon 10:15} where no rule speaks of
   * dates, of {@code 2026-12-24T10:15} always.
   *
   * @param names what the values are called, in their order
   */
  static Optional<String> value(String time, List<String> names) {
    int minute = ScheduleText.minuteOfWeek(time);
    LocalDateTime at = null;
    if (minute < 0) {
      try {
        at = LocalDateTime.parse(time);
        minute =
            (at.getDayOfWeek().getValue() - 1) * ScheduleItem.DAY
                + at.toLocalTime().toSecondOfDay() / 60;
      } catch (DateTimeException e) {
        return Optional.empty();
      }
    }
    String best = null;
    for (String name : names) {
      int before = name.indexOf(BEFORE);
      int from = name.indexOf(FROM);
      if (at == null && (before >= 0 || from >= 0)) {
        return Optional.empty();
      }
      int end = Math.max(before, from);
      int start = ScheduleText.minuteOfWeek(end < 0 ? name : name.substring(0, end));
      boolean fits =
          start >= 0
              && start <= minute
              && (before < 0 || at.isBefore(moment(name.substring(before + BEFORE.length()))))
              && (from < 0 || !at.isBefore(moment(name.substring(from + FROM.length()))));
      best = fits ? name : best; // the last that fits begins latest, and spans come in their order
    }
    return Optional.ofNullable(best);
  }

  private static LocalDateTime moment(String said) {
    return said.indexOf('T') < 0 ? LocalDate.parse(said).atStartOfDay() : LocalDateTime.parse(said);
  }
}
