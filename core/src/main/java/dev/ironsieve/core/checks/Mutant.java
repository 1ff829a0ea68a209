package dev.ironsieve.core.checks;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import java.util.EnumMap;
import java.util.Map;

/**
 * A mutant: the rulebase with one small mistake in one rule, as in mutation analysis (DeMillo,
 * Lipton, Sayward: Hints on Test Data Selection, Computer 11(4), 1978).
 */
public sealed interface Mutant {
  /** The id of the rule that it is made with. */
  String rule();

  /** The rule has another verdict. */
  record OtherVerdict(String rule) implements Mutant {}

  /** The rule is disabled. */
  record Disabled(String rule) implements Mutant {}

  /** The rule changes places with the next one that is enabled. */
  record Swapped(String rule, String next) implements Mutant {}

  /** The rule loses one criterion. */
  record Widened(String rule, DroppedCriterion part) implements Mutant {}

  /** A criterion that a mutant drops. */
  enum DroppedCriterion {
    FROM,
    TO,
    SERVICE,
    PERSON,
    DEVICE,
    SITE,
    APPLICATION,
    FILE_KIND,
    TIME;

    /** Whether the rule has this criterion. */
    boolean isAskedBy(Rule rule) {
      return switch (this) {
        case FROM -> !rule.fromZones().isAny() || !rule.fromAddresses().isAny();
        case TO -> !rule.toZones().isAny() || !rule.toAddresses().isAny();
        case SERVICE -> !rule.services().isAny();
        default -> rule.terms().containsKey(Coordinate.valueOf(name()));
      };
    }

    /** The rule without it. */
    public Rule leftOut(Rule rule) {
      return switch (this) {
        case FROM ->
            rule.matching(
                Criterion.any(),
                Criterion.any(),
                rule.toZones(),
                rule.toAddresses(),
                rule.services());
        case TO ->
            rule.matching(
                rule.fromZones(),
                rule.fromAddresses(),
                Criterion.any(),
                Criterion.any(),
                rule.services());
        case SERVICE ->
            rule.matching(
                rule.fromZones(),
                rule.fromAddresses(),
                rule.toZones(),
                rule.toAddresses(),
                Criterion.any());
        default -> {
          Map<Coordinate, Criterion<String>> terms = new EnumMap<>(Coordinate.class);
          terms.putAll(rule.terms());
          terms.remove(Coordinate.valueOf(name()));
          yield rule.asking(terms);
        }
      };
    }
  }
}
