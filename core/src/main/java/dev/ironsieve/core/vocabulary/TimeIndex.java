package dev.ironsieve.core.vocabulary;

import dev.ironsieve.core.model.ScheduleText;
import java.time.DateTimeException;
import java.time.LocalDateTime;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;

/**
 * Finds the value of a {@link TimeVocabulary} that holds a time. What begins or ends somewhere cuts
 * the days into spans and the week into slices; which value is that of a slice in a span is worked
 * out when it is first asked for. Several threads may ask at once.
 */
final class TimeIndex {
  private final List<String> names;
  private final Span[] spans; // by value
  private final int[] starts; // by value the first minute of the week, or -1
  private final LocalDateTime[] cuts; // where spans begin or end, ascending
  private final int[] slices; // where slices of the week begin, ascending
  private final Map<Place, Integer> found = new ConcurrentHashMap<>(); // values

  /** Between which cuts and beginnings of slices, or on which; as a search tells it. */
  private record Place(int cut, int slice) {}

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
    cuts =
        Arrays.stream(spans)
            .flatMap(span -> Stream.of(span.before, span.from))
            .filter(Objects::nonNull)
            .sorted()
            .distinct()
            .toArray(LocalDateTime[]::new);
    slices = Arrays.stream(starts).sorted().distinct().toArray();
  }

  private static LocalDateTime moment(String name, int at, String word) {
    return at < 0 ? null : TimeVocabulary.moment(name.substring(at + word.length()));
  }

  /**
   * The name of the value that a local time lies in: for {@code mon 10:15} if no rule uses dates,
   * for {@code 2026-12-24T10:15} always.
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
      minute = ScheduleText.minuteOfWeek(at);
    } else if (cuts.length > 0) {
      return Optional.empty();
    }
    return named(minute, at);
  }

  private Optional<String> named(int minute, LocalDateTime at) {
    int cut = cuts.length == 0 ? 0 : Arrays.binarySearch(cuts, at);
    Place place = new Place(cut, Arrays.binarySearch(slices, minute));
    int value = found.computeIfAbsent(place, p -> lastThatFits(minute, at));
    return value < 0 ? Optional.empty() : Optional.of(names.get(value));
  }

  /** The last begins latest; -1 if none fits. */
  private int lastThatFits(int minute, LocalDateTime at) {
    for (int value = starts.length - 1; value >= 0; value--) {
      if (starts[value] >= 0 && starts[value] <= minute && spans[value].holds(at)) {
        return value;
      }
    }
    return -1;
  }
}
