package dev.ironsieve.core.analysis;

import dev.ironsieve.core.model.Rule;
import java.time.LocalDate;
import java.util.Optional;

/** Expired and ends soon: rules whose end date has passed, or comes within some days. */
final class Expiry {
  /** Days before its end date from which on a rule ends soon. */
  static final int SOON = 30;

  private Expiry() {}

  /**
   * @param day that is today; null if nobody said so, and then nothing is found
   */
  static Optional<Finding> of(Rule rule, LocalDate day) {
    LocalDate end = rule.validity().end();
    if (!rule.isInForce() || day == null || end == null || end.isAfter(day.plusDays(SOON))) {
      return Optional.empty();
    }
    Finding.Kind kind =
        rule.validity().isOverBefore(day) ? Finding.Kind.EXPIRED : Finding.Kind.ENDS_SOON;
    return Optional.of(
        new Finding(
            kind, rule.id(), java.util.List.of(), Minimality.SMALLEST, null, null, end.toString()));
  }
}
