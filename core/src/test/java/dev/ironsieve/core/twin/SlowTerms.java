package dev.ironsieve.core.twin;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Validity;
import dev.ironsieve.core.vocabulary.FileKinds;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * Hosts, devices, kinds of files and moments by their definition, from their text. A value is a
 * concrete host ({@code www.quay.example/forms}), device, kind or moment ({@code
 * 2026-12-24T10:00}), or the name of an equivalence class, for which its first member is taken.
 *
 * @param objects host lists, device states and schedules
 */
record SlowTerms(List<TermObject> objects) {
  private static final String ELSE = ", else";
  private static final String BEFORE = " before ";
  private static final String FROM = " from ";
  private static final List<String> DAYS = List.of("mon", "tue", "wed", "thu", "fri", "sat", "sun");

  /** Whether an item of a rule holds for a value. */
  boolean holds(Coordinate coordinate, String item, String value) {
    String text = item.toLowerCase(Locale.ROOT);
    for (TermObject object : objects) {
      if (object.name().toLowerCase(Locale.ROOT).equals(text)) {
        return object.kind() == ObjectKind.SCHEDULE
            ? inSchedule(object.members(), value)
            : object.members().stream().anyMatch(member -> holds(coordinate, member, value));
      }
    }
    return switch (coordinate) {
      case SITE -> isSite(text, value.toLowerCase(Locale.ROOT));
      case DEVICE -> isDevice(text, value);
      case FILE_KIND -> isFile(item, value);
      case TIME -> inSchedule(List.of(item), value);
      case PERSON, APPLICATION -> throw new IllegalArgumentException(coordinate.word());
    };
  }

  private static boolean isSite(String item, String value) {
    if (item.equals("no host") || value.equals("no host")) {
      return item.equals(value);
    }
    String site = value.replace(ELSE, "").replace("other host", "x.elsewhere").replace("*", "zz9");
    if (item.startsWith("*")) {
      return (site + "/").split("/")[0].endsWith(item.substring(1));
    }
    return (site + "/").startsWith(item + "/");
  }

  private static boolean isDevice(String item, String value) {
    if (item.equals("unknown device") || value.equals("unknown device")) {
      return item.equals(value);
    }
    Set<String> facts = Set.of(value.replace(ELSE, "").split(", "));
    return Arrays.stream(item.split(", "))
        .allMatch(
            fact ->
                fact.startsWith("lacks ")
                    ? !facts.contains(fact.replace("lacks", "has"))
                    : facts.contains(fact));
  }

  private static boolean isFile(String item, String value) {
    return item.equalsIgnoreCase(value)
        || (item.equals("any file") && !value.equals("no file"))
        || FileKinds.all().stream()
            .anyMatch(kind -> kind.name().equals(value) && kind.family().equals(item));
  }

  /** On one of its days, if it has any, at one of its times of the week, if it has any. */
  private static boolean inSchedule(List<String> items, String value) {
    LocalDateTime at = moment(value);
    List<String> days = items.stream().filter(SlowTerms::isDate).toList();
    List<String> weekly = items.stream().filter(item -> !isDate(item)).toList();
    return (days.isEmpty() || days.stream().anyMatch(item -> onDays(item, at)))
        && (weekly.isEmpty() || weekly.stream().anyMatch(item -> inWeek(item, at)));
  }

  private static boolean isDate(String item) {
    return Character.isDigit(item.charAt(0));
  }

  private static boolean onDays(String item, LocalDateTime at) {
    String[] ends = item.split(" to ");
    LocalDate day = at.toLocalDate();
    return !day.isBefore(LocalDate.parse(ends[0]))
        && !day.isAfter(LocalDate.parse(ends[ends.length - 1]));
  }

  /** {@code mon-fri 06:00-18:00}, {@code SAT}, {@code sun 22:00-02:00 in Europe/Oslo}. */
  private static boolean inWeek(String item, LocalDateTime at) {
    String[] words = item.split(" ");
    LocalDateTime there = at;
    if (item.contains(" in ")) {
      ZoneId zone = ZoneId.of(words[words.length - 1]);
      there = at.atZone(ZoneOffset.UTC).withZoneSameInstant(zone).toLocalDateTime();
    }
    if (words.length == 1) {
      return isOn(words[0], there.getDayOfWeek());
    }
    LocalTime begin = LocalTime.parse(words[1].substring(0, 5));
    LocalTime end = LocalTime.parse(words[1].substring(6));
    LocalTime time = there.toLocalTime();
    if (begin.isBefore(end)) {
      return isOn(words[0], there.getDayOfWeek()) && !time.isBefore(begin) && time.isBefore(end);
    }
    return isOn(words[0], there.getDayOfWeek()) && !time.isBefore(begin)
        || isOn(words[0], there.getDayOfWeek().minus(1)) && time.isBefore(end);
  }

  private static boolean isOn(String days, DayOfWeek day) {
    String[] ends = days.toLowerCase(Locale.ROOT).split("-");
    int number = day.getValue() - 1;
    return DAYS.indexOf(ends[0]) <= number && number <= DAYS.indexOf(ends[ends.length - 1]);
  }

  static boolean isValid(Validity validity, String value) {
    LocalDate day = moment(value).toLocalDate();
    return (validity.start() == null || !day.isBefore(validity.start()))
        && (validity.end() == null || !day.isAfter(validity.end()));
  }

  /**
   * The moment that a value names: itself, or of a slice of the week the first after the beginning
   * of its span, or the last before its end.
   */
  private static LocalDateTime moment(String value) {
    if (Character.isDigit(value.charAt(0))) {
      return LocalDateTime.parse(value);
    }
    boolean before = value.contains(BEFORE);
    String[] parts = value.split(before ? BEFORE : FROM);
    String span = parts.length == 1 ? "2026-01-05" : parts[1];
    LocalDateTime limit =
        span.contains("T") ? LocalDateTime.parse(span) : LocalDate.parse(span).atStartOfDay();
    LocalDateTime at = limit.toLocalDate().atTime(LocalTime.parse(parts[0].substring(4)));
    DayOfWeek day = DayOfWeek.of(1 + DAYS.indexOf(parts[0].substring(0, 3)));
    int step = before ? -1 : 1;
    while (at.getDayOfWeek() != day || (before ? !at.isBefore(limit) : at.isBefore(limit))) {
      at = at.plusDays(step);
    }
    return at;
  }
}
