package dev.ironsieve.core.model;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * The values of a {@link TimeVocabulary}, read once, so that the one that holds a moment is found
 * by two searches: for its span of days, and for its slice of the week.
 */
final class TimeIndex {
  private final List<String> names;
  private final Span[] spans; // by value
  private final int[] starts; // by value the first minute of the week, or -1
  private final boolean dated; // whether some value hangs on the date
  private final int slices; // in each span; 0 if the values are not slices in spans, in their order
  private final List<LocalDateTime> begins = new ArrayList<>(); // of the second and later spans

  /**
   * Days that a value is confined to.
   *
   * @param before where it ends; null where it does not
   * @param from where it begins; null where it does not
   */
  private record Span(LocalDateTime before, LocalDateTime from) {
    static final Span ALWAYS = new Span(null, null);

    boolean holds(LocalDateTime at) {
      return (before == null || at.isBefore(before)) && (from == null || !at.isBefore(from));
    }
  }

  /**
   * @param names what the values are called, in their order
   */
  TimeIndex(List<String> names) {
    this.names = names;
    spans = new Span[names.size()];
    starts = new int[names.size()];
    for (int value = 0; value < starts.length; value++) {
      String name = names.get(value);
      int before = name.indexOf(TimeVocabulary.BEFORE);
      int from = name.indexOf(TimeVocabulary.FROM);
      int end = Math.max(before, from);
      starts[value] = ScheduleText.minuteOfWeek(end < 0 ? name : name.substring(0, end));
      spans[value] =
          end < 0
              ? Span.ALWAYS
              : new Span(
                  moment(name, before, TimeVocabulary.BEFORE),
                  moment(name, from, TimeVocabulary.FROM));
    }
    dated = Arrays.stream(spans).anyMatch(span -> span != Span.ALWAYS);
    slices = slices();
  }

  private static LocalDateTime moment(String name, int at, String word) {
    if (at < 0) {
      return null;
    }
    String said = name.substring(at + word.length());
    return said.indexOf('T') < 0 ? LocalDate.parse(said).atStartOfDay() : LocalDateTime.parse(said);
  }

  /** How many slices each span has; 0 if that is not how the values are made up. */
  private int slices() {
    int count = 1;
    while (count < starts.length && spans[count].equals(spans[0])) {
      count++;
    }
    if (starts.length % count != 0 || starts[0] != 0 || spans[0].from != null) {
      return 0;
    }
    for (int value = 0; value < starts.length; value++) {
      int place = value % count;
      boolean inOrder = place == 0 || starts[value] > starts[value - 1];
      if (starts[value] != starts[place] || !inOrder) {
        return 0;
      }
      if (place == 0 && value > 0) {
        begins.add(spans[value].from);
      }
      if (value >= count && !spans[value].equals(new Span(null, begins.getLast()))) {
        return 0;
      }
    }
    boolean ascending =
        begins.stream().allMatch(Objects::nonNull)
            && IntStream.range(1, begins.size())
                .allMatch(i -> begins.get(i - 1).isBefore(begins.get(i)));
    LocalDateTime end = begins.isEmpty() ? null : begins.getFirst();
    return ascending && Objects.equals(spans[0].before, end) ? count : 0;
  }

  /**
   * The name of the value that a local time has: of {@code mon 10:15} where no rule speaks of
   * dates, of {@code 2026-12-24T10:15} always.
   */
  Optional<String> value(String time) {
    int minute = ScheduleText.minuteOfWeek(time);
    LocalDateTime at = null;
    if (minute < 0) {
      try {
        at = LocalDateTime.parse(time);
      } catch (DateTimeException e) {
        return Optional.empty();
      }
      minute =
          (at.getDayOfWeek().getValue() - 1) * ScheduleItem.DAY
              + at.toLocalTime().toSecondOfDay() / 60;
    } else if (dated) {
      return Optional.empty();
    }
    int value = slices > 0 ? found(minute, at) : lastThatFits(minute, at);
    return value < 0 ? Optional.empty() : Optional.of(names.get(value));
  }

  private int found(int minute, LocalDateTime at) {
    int span = begins.isEmpty() ? 0 : place(Collections.binarySearch(begins, at));
    int slice = place(Arrays.binarySearch(starts, 0, slices, minute)) - 1;
    return span * slices + slice;
  }

  /** How many of what was searched are not above what was searched for. */
  private static int place(int found) {
    return found >= 0 ? found + 1 : -found - 1;
  }

  /** Of values from elsewhere; the last that fits begins latest. */
  private int lastThatFits(int minute, LocalDateTime at) {
    for (int value = starts.length - 1; value >= 0; value--) {
      if (starts[value] >= 0 && starts[value] <= minute && (at == null || spans[value].holds(at))) {
        return value;
      }
    }
    return -1;
  }
}
