package dev.ironsieve.core.model;

import java.time.LocalDate;
import java.util.Optional;

/**
 * The first and the last day on which a rule may decide, in the gateway's time zone. It is a
 * criterion on the time, beside the rule's schedules.
 *
 * @param start first day, included; null for ever before
 * @param end last day, included; null for ever after
 */
public record Validity(LocalDate start, LocalDate end) {
  public static final Validity ALWAYS = new Validity(null, null);

  private static final LocalDate FIRST = ScheduleItem.Days.EVER_BEFORE;
  private static final LocalDate LAST = ScheduleItem.Days.EVER_AFTER;

  public Validity {
    check("start date", start);
    check("end date", end);
    if (start != null && end != null && end.isBefore(start)) {
      throw new InvalidModel("end date", "a day not before " + start, end + "");
    }
  }

  private static void check(String what, LocalDate day) {
    if (day != null && (day.isBefore(FIRST) || day.isAfter(LAST))) {
      throw new InvalidModel(what, "a day from " + FIRST + " to " + LAST, day + "");
    }
  }

  /** Whether it is over before a day. */
  public boolean isOverBefore(LocalDate day) {
    return end != null && end.isBefore(day);
  }

  /** The days as {@link ScheduleItem} reads them; nothing if every day is one. */
  Optional<String> days() {
    if (start == null && end == null) {
      return Optional.empty();
    }
    return Optional.of((start == null ? FIRST : start) + " to " + (end == null ? LAST : end));
  }
}
