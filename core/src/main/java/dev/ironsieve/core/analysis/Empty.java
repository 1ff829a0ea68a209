package dev.ironsieve.core.analysis;

import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.ruleindex.RuleIndex;
import java.time.LocalDate;
import java.util.Optional;

/** Empty: no feasible connection meets the rule's criteria. */
final class Empty {
  private Empty() {}

  /** Whether the rule's match is empty; a rule that has expired matches nothing either. */
  static boolean matchesNothing(int handle, RuleIndex index) {
    return index.region(handle).isEmpty();
  }

  /** The finding about a rule in force, if there is one; {@link Expired} reports expired rules. */
  static Optional<Finding> of(int handle, RuleIndex index) {
    Rule rule = index.rule(handle);
    LocalDate day = index.resolution().day();
    boolean expired = day != null && rule.validity().isOverBefore(day);
    return rule.isInForce() && !expired && matchesNothing(handle, index)
        ? Optional.of(Finding.of(Finding.Kind.EMPTY, rule.id(), ""))
        : Optional.empty();
  }
}
