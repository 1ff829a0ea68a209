package dev.ironsieve.core.analysis;

import dev.ironsieve.core.model.Rule;
import java.time.LocalDate;
import java.util.Optional;

/** Expired and ends soon: a rule whose end date has passed, or is near. */
final class Expired {
  /** Days before its end date from which on a rule ends soon. */
  static final int SOON = 30;

  private Expired() {}

  /**
   * The finding about a rule in force, if there is one.
   *
   * @param day today; null if no day was given, and then nothing is found
   */
  static Optional<Finding> of(Rule rule, LocalDate day) {
    LocalDate end = rule.validity().end();
    if (!rule.isInForce() || day == null || end == null || end.isAfter(day.plusDays(SOON))) {
      return Optional.empty();
    }
    Finding.Kind kind =
        rule.validity().isOverBefore(day) ? Finding.Kind.EXPIRED : Finding.Kind.ENDS_SOON;
    return Optional.of(Finding.of(kind, rule.id(), end.toString()));
  }
}
