package dev.ironsieve.bench;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** The peer of a look-up: rule by rule and item by item, over the rules as they were written. */
final class LinearScan {
  private final List<Rule> rules;
  private final Map<String, Set<String>> members = new HashMap<>(); // of sets and values, by name

  LinearScan(Rulebase base) {
    rules = base.rules();
    for (Vocabulary vocabulary : base.vocabularies()) {
      vocabulary.values().forEach(value -> members.put(value, Set.of(value)));
      for (Vocabulary.Term term : vocabulary.terms()) {
        Set<String> names = new HashSet<>();
        term.members().forEach(value -> names.add(vocabulary.values().get(value)));
        members.put(term.name(), names);
      }
    }
  }

  /** The rule that decides; null for the default rule. */
  Rule decide(Connection c) {
    for (Rule rule : rules) {
      if (rule.enabled()
          && says(rule.fromZones(), c.from().zone())
          && says(rule.toZones(), c.to().zone())
          && holds(rule.fromAddresses(), c.from())
          && holds(rule.toAddresses(), c.to())
          && holds(rule.services(), c)
          && holdsTerms(rule, c)) {
        return rule;
      }
    }
    return null;
  }

  private boolean holdsTerms(Rule rule, Connection c) {
    for (Map.Entry<Coordinate, Criterion<String>> asked : rule.terms().entrySet()) {
      String value = c.terms().get(asked.getKey());
      boolean holds = false;
      for (String item : asked.getValue().items()) {
        holds |= item.equals(value) || members.get(item).contains(value);
      }
      if (!holds) {
        return false;
      }
    }
    return true;
  }

  private static boolean says(Criterion<String> zones, String zone) {
    return zones.items().isEmpty() || zones.items().contains(zone);
  }

  private static boolean holds(Criterion<AddressItem> criterion, Connection.Endpoint end) {
    if (criterion.items().isEmpty()) {
      return true;
    }
    for (AddressItem item : criterion.items()) {
      if (item instanceof AddressItem.Literal literal && literal.range().contains(end.address())) {
        return true;
      }
    }
    return false;
  }

  private static boolean holds(Criterion<ServiceItem> criterion, Connection c) {
    if (criterion.items().isEmpty()) {
      return true;
    }
    for (ServiceItem item : criterion.items()) {
      if (item instanceof ServiceLiteral s
          && s.protocol() == c.protocol()
          && s.firstDetail() <= c.detail()
          && c.detail() <= s.lastDetail()
          && s.firstSource() <= c.sourcePort()
          && c.sourcePort() <= s.lastSource()) {
        return true;
      }
    }
    return false;
  }
}
