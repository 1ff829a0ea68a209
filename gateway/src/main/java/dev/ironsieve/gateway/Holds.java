package dev.ironsieve.gateway;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Rule;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;

/**
 * Who is refused everything for a time, after a rule with a hold decided about them: a person, or
 * the address where nobody is signed in. For one thread.
 */
final class Holds {
  private static final int MOST = 100_000;

  private record Hold(Rule rule, Instant until) {}

  private final Map<String, Hold> held = new HashMap<>();

  /** The rule that holds whoever opens a connection, or null. */
  Rule of(Connection connection, Instant at) {
    if (held.isEmpty()) {
      return null;
    }
    Hold hold = held.get(key(connection));
    return hold == null || !hold.until().isAfter(at) ? null : hold.rule();
  }

  /** Holds whoever opened a connection, if the rule that decided it says so. */
  void add(Rule rule, Connection connection, Instant at) {
    if (rule == null || rule.hold() == null) {
      return;
    }
    if (held.size() >= MOST) {
      held.values().removeIf(hold -> !hold.until().isAfter(at));
    }
    if (held.size() < MOST) {
      held.put(key(connection), new Hold(rule, at.plus(Duration.ofMinutes(rule.hold()))));
    }
  }

  /** Forgets the holds of rules that another revision has not. */
  void keepThoseOf(Map<String, Rule> rules) {
    held.values()
        .removeIf(
            hold -> {
              Rule now = rules.get(hold.rule().id());
              return now == null || now.hold() == null;
            });
  }

  private static String key(Connection connection) {
    String person = connection.terms().get(Coordinate.PERSON);
    return person == null ? connection.from().address().toString() : person;
  }
}
