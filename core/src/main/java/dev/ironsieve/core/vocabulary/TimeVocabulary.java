package dev.ironsieve.core.vocabulary;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.ScheduleItem;
import dev.ironsieve.core.model.ScheduleText;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.sets.IntSet;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.IntStream;

/**
 * The vocabulary of time, derived from the times in rules and schedules. The week is cut into
 * slices, and the days into spans, at every start and end; a value is a slice in a span, if it
 * occurs there (a span from Tuesday to Thursday has no Monday):
 *
 * <pre>
 *   "mon 06:00"                         from then to the next slice, if no rule uses dates
 *   "mon 06:00 before 2026-12-24"       the first span
 *   "mon 06:00 from 2026-12-24"         any other span that has this slice
 *   "mon 06:00 from 2026-12-24T23:00"   one that begins within a day
 * </pre>
 *
 * <p>All of it is the gateway's local time. A time in another time zone is shifted by the
 * difference between the two; if the difference changes during a year, a span begins there.
 */
public final class TimeVocabulary {
  private static final int MOST_VALUES = 100_000;
  static final String BEFORE = " before ";
  static final String FROM = " from ";

  private TimeVocabulary() {}

  /** One time, and how its clock goes. */
  private record Timed(ScheduleItem item, Clocks clocks) {
    /** Of a date, whether a span begins on one of its days. */
    boolean holdsOn(ScheduleItem.Days days, LocalDateTime span) {
      LocalDate day = span.plusMinutes(clocks.ahead(span)).toLocalDate();
      return !day.isBefore(days.first()) && !day.isAfter(days.last());
    }

    void cut(Set<Integer> slices, Set<LocalDateTime> spans) {
      spans.addAll(clocks.changes());
      switch (item) {
        case ScheduleItem.Weekly weekly -> {
          for (DayOfWeek day : weekly.days()) {
            int start = weekly.start(day);
            for (int ahead : clocks.allAhead()) {
              slices.add(Math.floorMod(start - ahead, ScheduleItem.WEEK));
              slices.add(Math.floorMod(start + weekly.length() - ahead, ScheduleItem.WEEK));
            }
          }
        }
        case ScheduleItem.Days days -> {
          if (!days.first().equals(ScheduleItem.Days.EVER_BEFORE)) {
            spans.add(clocks.here(days.first().atStartOfDay()));
          }
          if (!days.last().equals(ScheduleItem.Days.EVER_AFTER)) {
            spans.add(clocks.here(days.last().plusDays(1).atStartOfDay()));
          }
        }
      }
    }
  }

  /** The times of one schedule or literal. */
  private record Asked(String name, List<Timed> times) {
    static Asked of(String name, List<String> members, ZoneId gateway) {
      List<Timed> times = new ArrayList<>();
      for (String member : members) {
        ScheduleItem item = ScheduleItem.parse(member);
        times.add(new Timed(item, Clocks.between(gateway, item.zone())));
      }
      return new Asked(name, times);
    }

    /** The spans, by number, of which one may begin on one of its days; all if it has none. */
    IntSet maySpan(List<LocalDateTime> spans) {
      IntSet out = IntSet.EMPTY;
      boolean days = false;
      for (Timed time : times) {
        if (time.item instanceof ScheduleItem.Days d) {
          // No clock is two days ahead of another.
          boolean ever = d.first().equals(ScheduleItem.Days.EVER_BEFORE);
          int from = ever ? -1 : place(spans, d.first().minusDays(2).atStartOfDay());
          int to = place(spans, d.last().plusDays(3).atStartOfDay());
          out = from < to ? out.union(IntSet.range(from + 1, to)) : out;
          days = true;
        }
      }
      return days ? out : IntSet.range(0, spans.size());
    }

    /** Whether a span begins on one of its days, or it has none. */
    boolean onDay(LocalDateTime span) {
      boolean days = false;
      for (Timed time : times) {
        if (time.item instanceof ScheduleItem.Days d) {
          if (time.holdsOn(d, span)) {
            return true;
          }
          days = true;
        }
      }
      return !days;
    }

    /** By how many minutes the clock of each time of the week is ahead. */
    List<Integer> ahead(LocalDateTime span) {
      return times.stream()
          .filter(time -> time.item instanceof ScheduleItem.Weekly)
          .map(time -> time.clocks.ahead(span))
          .toList();
    }

    /**
     * The slices that lie in one of its times of the week, by number; all if it has none.
     *
     * @param slices first minutes, among them all where such a time begins or ends
     * @param ahead by how many minutes the clock of each is ahead
     */
    IntSet inWeek(List<Integer> slices, List<Integer> ahead) {
      if (ahead.isEmpty()) {
        return IntSet.range(0, slices.size() - 1);
      }
      IntSet out = IntSet.EMPTY;
      int next = 0;
      for (Timed time : times) {
        if (time.item instanceof ScheduleItem.Weekly weekly) {
          int behind = ahead.get(next++);
          for (DayOfWeek day : weekly.days()) {
            int start = Math.floorMod(weekly.start(day) - behind, ScheduleItem.WEEK);
            out = out.union(between(slices, start, start + weekly.length()));
          }
        }
      }
      return out;
    }

    /** The slices from a minute to before another, which may be in the next week. */
    private static IntSet between(List<Integer> slices, int start, int end) {
      if (end > ScheduleItem.WEEK) {
        return between(slices, start, ScheduleItem.WEEK)
            .union(between(slices, 0, end - ScheduleItem.WEEK));
      }
      return IntSet.range(place(slices, start), place(slices, end) - 1);
    }

    /** The number of sorted times below another. */
    private static <T extends Comparable<? super T>> int place(List<T> sorted, T other) {
      int at = Collections.binarySearch(sorted, other);
      return at >= 0 ? at : -at - 1;
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
    List<int[]> occurring = cuts.occurring();
    List<Vocabulary.Term> terms = new ArrayList<>();
    asked.forEach(one -> terms.add(new Vocabulary.Term(one.name, cuts.where(one, occurring))));
    return new Vocabulary(Coordinate.TIME, "as written", cuts.names(occurring), terms);
  }

  /**
   * For each value the one that stands for it from a day on: itself, or for a value that is over by
   * then the same slice of the next span that has it.
   *
   * @param day in the gateway's time zone; null for ever
   * @return null if each stands for itself
   */
  public static int[] from(LocalDate day, Vocabulary vocabulary) {
    if (day == null || vocabulary.coordinate() != Coordinate.TIME) {
      return null;
    }
    List<String> names = vocabulary.values();
    if (names.isEmpty() || !names.getFirst().contains(BEFORE)) {
      return null;
    }
    int[] starts = new int[names.size()];
    LocalDateTime[] begins = new LocalDateTime[names.size()]; // of its span; null for ever before
    TreeSet<LocalDateTime> spans = new TreeSet<>();
    TreeSet<Integer> slices =
        new TreeSet<>(); // first minutes: those of the first span, which has all
    for (int value = 0; value < starts.length; value++) {
      String name = names.get(value);
      boolean first = name.contains(BEFORE);
      String word = first ? BEFORE : FROM;
      int at = name.indexOf(word);
      starts[value] = ScheduleText.minuteOfWeek(name.substring(0, at));
      if (first) {
        slices.add(starts[value]);
      }
      begins[value] = first ? null : moment(name.substring(at + word.length()));
      if (!first) {
        spans.add(begins[value]);
      }
    }
    LocalDateTime now = day.atStartOfDay();
    int[] out = new int[names.size()];
    boolean changed = false;
    Map<Integer, Integer> next = new HashMap<>(); // by slice, the value that is not over
    for (int value = out.length - 1; value >= 0; value--) {
      LocalDateTime span = begins[value];
      LocalDateTime end = span == null ? spans.first() : spans.higher(span);
      int slice = slices.floor(starts[value]);
      Integer after = slices.higher(slice);
      int sliceEnd = after == null ? ScheduleItem.WEEK : after;
      LocalDateTime begin = span == null || span.isBefore(now) ? now : span;
      boolean over = end != null && (!begin.isBefore(end) || !occurs(slice, sliceEnd, begin, end));
      if (!over) {
        next.put(slice, value);
      }
      out[value] = next.get(slice);
      changed |= over;
    }
    return changed ? out : null;
  }

  /** The time at which a span begins, from the name of a value. */
  static LocalDateTime moment(String said) {
    return said.indexOf('T') < 0 ? LocalDate.parse(said).atStartOfDay() : LocalDateTime.parse(said);
  }

  /** Whether a slice of the week occurs between two times, the second not included. */
  private static boolean occurs(int start, int end, LocalDateTime from, LocalDateTime to) {
    long length = Duration.between(from, to).toMinutes();
    int first = ScheduleText.minuteOfWeek(from);
    int wait = Math.floorMod(start - first, ScheduleItem.WEEK);
    return wait < length || (start <= first && first < end);
  }

  /**
   * @param slices first minutes
   * @param spans when all spans but the first begin
   */
  private record Cuts(List<Integer> slices, List<LocalDateTime> spans) {
    private static final Duration WEEK = Duration.ofDays(7);

    Cuts {
      long values = (long) slices.size() * (spans.size() + 1);
      if (values > MOST_VALUES) {
        throw new InvalidModel(
            "schedules",
            "at most " + MOST_VALUES + " parts of weeks and spans of days",
            values + "");
      }
    }

    /** Whether every slice of the week occurs in a span: in those of at least a week. */
    private boolean isWhole(int span) {
      return span == 0
          || span == spans.size()
          || Duration.between(spans.get(span - 1), spans.get(span)).compareTo(WEEK) >= 0;
    }

    private boolean occurs(int slice, int span) {
      int end = slice + 1 < slices.size() ? slices.get(slice + 1) : ScheduleItem.WEEK;
      return TimeVocabulary.occurs(slices.get(slice), end, spans.get(span - 1), spans.get(span));
    }

    /** The first minute of the week of a slice in a span; its own first unless it is cut there. */
    private int firstMinute(int slice, int span) {
      int start = slices.get(slice);
      if (isWhole(span)
          || TimeVocabulary.occurs(start, start, spans.get(span - 1), spans.get(span))) {
        return start;
      }
      return ScheduleText.minuteOfWeek(spans.get(span - 1));
    }

    /** Of each span the slices that occur there, ascending. */
    List<int[]> occurring() {
      int[] all = IntStream.range(0, slices.size()).toArray();
      List<int[]> out = new ArrayList<>();
      for (int i = 0; i <= spans.size(); i++) {
        int span = i;
        out.add(isWhole(i) ? all : Arrays.stream(all).filter(s -> occurs(s, span)).toArray());
      }
      return out;
    }

    List<String> names(List<int[]> occurring) {
      List<String> out = new ArrayList<>();
      for (int span = 0; span <= spans.size(); span++) {
        String days =
            spans.isEmpty()
                ? ""
                : span == 0 ? BEFORE + said(spans.get(0)) : FROM + said(spans.get(span - 1));
        for (int slice : occurring.get(span)) {
          out.add(ScheduleText.minute(firstMinute(slice, span)) + days);
        }
      }
      return out;
    }

    private static String said(LocalDateTime time) {
      boolean midnight = time.toLocalTime().equals(LocalTime.MIDNIGHT);
      return midnight ? time.toLocalDate().toString() : time.toString();
    }

    /** The values whose first moment fits; it stands for the whole value. */
    IntSet where(Asked asked, List<int[]> occurring) {
      int[] firstValues = new int[occurring.size()]; // of each span
      for (int span = 1; span < firstValues.length; span++) {
        firstValues[span] = firstValues[span - 1] + occurring.get(span - 1).length;
      }
      IntSet.Builder out = new IntSet.Builder();
      Map<List<Integer>, IntSet> known = new HashMap<>(); // by how far clocks are ahead
      asked
          .maySpan(spans)
          .forEach(
              span -> {
                LocalDateTime first = first(span);
                if (asked.onDay(first)) {
                  IntSet held =
                      known.computeIfAbsent(
                          asked.ahead(first), ahead -> asked.inWeek(slices, ahead));
                  addValues(held, occurring.get(span), firstValues[span], out);
                }
              });
      return out.build();
    }

    /** Adds the values of those slices of a span that are held. */
    private void addValues(IntSet held, int[] occurring, int firstValue, IntSet.Builder out) {
      if (occurring.length == slices.size()) {
        for (int i = 0; i < held.intervals(); i++) {
          out.addInOrder(firstValue + held.first(i), firstValue + held.last(i));
        }
        return;
      }
      for (int i = 0; i < occurring.length; i++) {
        if (held.contains(occurring[i])) {
          out.addInOrder(firstValue + i, firstValue + i);
        }
      }
    }

    private LocalDateTime first(int span) {
      if (span > 0) {
        return spans.get(span - 1);
      }
      return spans.isEmpty() ? LocalDate.EPOCH.atStartOfDay() : spans.get(0).minusMinutes(1);
    }
  }
}
