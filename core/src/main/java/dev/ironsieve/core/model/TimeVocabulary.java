package dev.ironsieve.core.model;

import dev.ironsieve.core.sets.IntSet;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.BiPredicate;

/**
 * What rules can say of time, made of the times that they and schedules mention. The week is cut
 * into slices, and the days into spans, where one of them begins or ends; a value is a slice in a
 * span:
 *
 * <pre>
 *   "mon 06:00"                      from then to the next slice, if no rule speaks of dates
 *   "mon 06:00 before 2026-12-24"    the first span
 *   "mon 06:00 from 2026-12-24"      any other span
 * </pre>
 */
final class TimeVocabulary {
  private static final int MOST_VALUES = 20_000;
  private static final String BEFORE = " before ";
  private static final String FROM = " from ";

  private TimeVocabulary() {}

  /**
   * @param literals times that rules say themselves, as they are written
   */
  static Vocabulary of(List<TermObject> schedules, Collection<String> literals) {
    List<ScheduleItem> items = new ArrayList<>();
    schedules.forEach(
        schedule -> schedule.members().forEach(m -> items.add(ScheduleItem.parse(m))));
    literals.forEach(literal -> items.add(ScheduleItem.parse(literal)));
    TreeSet<Integer> slices = new TreeSet<>(Set.of(0));
    TreeSet<LocalDate> spans = new TreeSet<>(); // where the second and later ones begin
    for (ScheduleItem item : items) {
      switch (item) {
        case ScheduleItem.Weekly weekly ->
            weekly
                .days()
                .forEach(
                    day -> {
                      int start = (day.getValue() - 1) * ScheduleItem.DAY;
                      int end = weekly.to() + (weekly.to() > weekly.from() ? 0 : ScheduleItem.DAY);
                      slices.add(start + weekly.from());
                      slices.add((start + end) % ScheduleItem.WEEK);
                    });
        case ScheduleItem.Days days -> {
          spans.add(days.first());
          spans.add(days.last().plusDays(1));
        }
      }
    }
    Cuts cuts = new Cuts(List.copyOf(slices), List.copyOf(spans));
    List<Vocabulary.Term> terms = new ArrayList<>();
    for (TermObject schedule : schedules) {
      List<ScheduleItem> own = schedule.members().stream().map(ScheduleItem::parse).toList();
      terms.add(new Vocabulary.Term(schedule.name(), cuts.where((m, d) -> holds(own, m, d))));
    }
    for (String literal : literals) {
      List<ScheduleItem> own = List.of(ScheduleItem.parse(literal));
      terms.add(new Vocabulary.Term(literal, cuts.where((m, d) -> holds(own, m, d))));
    }
    return new Vocabulary(Coordinate.TIME, "as written", cuts.names(), terms);
  }

  /** At one of the times of the week, if there are any, on one of the days, if there are any. */
  private static boolean holds(List<ScheduleItem> items, int minute, LocalDate day) {
    boolean weekly = false;
    boolean inWeek = false;
    boolean days = false;
    boolean onDay = false;
    for (ScheduleItem item : items) {
      switch (item) {
        case ScheduleItem.Weekly w -> {
          weekly = true;
          inWeek |= w.holds(minute);
        }
        case ScheduleItem.Days d -> {
          days = true;
          onDay |= !day.isBefore(d.first()) && !day.isAfter(d.last());
        }
      }
    }
    return (!weekly || inWeek) && (!days || onDay);
  }

  /**
   * @param slices first minutes
   * @param spans first days of all spans but the first
   */
  private record Cuts(List<Integer> slices, List<LocalDate> spans) {
    Cuts {
      int values = slices.size() * (spans.size() + 1);
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
                  : span == 0 ? name + BEFORE + spans.get(0) : name + FROM + spans.get(span - 1));
        }
      }
      return out;
    }

    /** The values whose first moment fits; it stands for the whole value. */
    IntSet where(BiPredicate<Integer, LocalDate> fits) {
      IntSet.Builder out = new IntSet.Builder();
      int value = 0;
      for (int span = 0; span <= spans.size(); span++) {
        LocalDate day =
            span > 0
                ? spans.get(span - 1)
                : spans.isEmpty() ? LocalDate.EPOCH : spans.get(0).minusDays(1);
        for (int slice : slices) {
          if (fits.test(slice, day)) {
            out.addInOrder(value, value);
          }
          value++;
        }
      }
      return out.build();
    }
  }

  /**
   * The name of the value that a time has: of {@code mon 10:15} where no rule speaks of dates, of
   * {@code 2026-12-24T10:15} always.
   *
   * @param names what the values are called, in their order
   */
  static Optional<String> value(String time, List<String> names) {
    int minute = ScheduleText.minuteOfWeek(time);
    LocalDate day = null;
    if (minute < 0) {
      try {
        LocalDateTime at = LocalDateTime.parse(time);
        day = at.toLocalDate();
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
      if (day == null && (before >= 0 || from >= 0)) {
        return Optional.empty();
      }
      int end = Math.max(before, from);
      int start = ScheduleText.minuteOfWeek(end < 0 ? name : name.substring(0, end));
      boolean fits =
          start >= 0
              && start <= minute
              && (before < 0
                  || day.isBefore(LocalDate.parse(name.substring(before + BEFORE.length()))))
              && (from < 0 || !day.isBefore(LocalDate.parse(name.substring(from + FROM.length()))));
      best = fits ? name : best; // the last that fits begins latest, and spans come in their order
    }
    return Optional.ofNullable(best);
  }
}
