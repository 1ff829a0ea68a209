package dev.ironsieve.core.twin;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.Validity;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.Collection;
import java.util.NoSuchElementException;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Stream;

/** The text of the meaning, word by word: a conjunction of criteria, the first rule decides. */
public record SlowRules(Rulebase rulebase) {

  public Optional<Rule> decide(Connection connection) {
    return rulebase.rules().stream()
        .filter(SlowRules::mayDecide)
        .filter(rule -> holds(rule, connection))
        .findFirst();
  }

  /** Whether a rule is not passed over, whatever the connection. */
  public static boolean mayDecide(Rule rule) {
    return rule.enabled() && !rule.observeOnly();
  }

  /**
   * Whether every rule holds for the same connections in both: nothing else of a rulebase is looked
   * at here.
   */
  boolean holdsAsIn(SlowRules other) {
    return rulebase.addresses().equals(other.rulebase.addresses())
        && rulebase.services().equals(other.rulebase.services())
        && rulebase.feeds().equals(other.rulebase.feeds())
        && rulebase.vocabularies().equals(other.rulebase.vocabularies());
  }

  public boolean holds(Rule rule, Connection c) {
    return holds(rule.fromZones(), zone -> zone.equalsIgnoreCase(c.from().zone()))
        && holds(rule.toZones(), zone -> zone.equalsIgnoreCase(c.to().zone()))
        && holds(rule.fromAddresses(), item -> in(item, c.from()))
        && holds(rule.toAddresses(), item -> in(item, c.to()))
        && holds(rule.services(), item -> in(item, c))
        && !any(rule.services().except(), item -> mayBeUsual(item, c))
        && !any(rule.terms().entrySet(), asked -> !holdsTerm(asked.getKey(), asked.getValue(), c))
        && isValid(rule.validity(), c);
  }

  private boolean isValid(Validity validity, Connection c) {
    return validity.equals(Validity.ALWAYS)
        || values(Coordinate.TIME, c).allMatch(value -> SlowTerms.isValid(validity, value));
  }

  /** The value that a connection has, or every value if it has none. */
  private Stream<String> values(Coordinate coordinate, Connection c) {
    String value = c.terms().get(coordinate);
    return value == null
        ? rulebase.vocabulary(coordinate).orElseThrow().values().stream()
        : Stream.of(value);
  }

  /** What is left out stands for every value: the criterion holds if it holds for all of them. */
  private boolean holdsTerm(Coordinate coordinate, Criterion<String> asked, Connection c) {
    return values(coordinate, c)
        .allMatch(value -> holds(asked, name -> means(coordinate, name, value)));
  }

  /** Whether a name stands for a value, or for a set that holds it. */
  private boolean means(Coordinate coordinate, String name, String value) {
    for (Vocabulary vocabulary : rulebase.pinned()) {
      if (vocabulary.coordinate() == coordinate) {
        return name.equals(value)
            || vocabulary.terms().stream()
                .filter(term -> term.name().equals(name))
                .anyMatch(term -> term.members().contains(vocabulary.values().indexOf(value)));
      }
    }
    return new SlowTerms(rulebase.termObjects()).holds(coordinate, name, value);
  }

  private static <T> boolean holds(Criterion<T> criterion, Predicate<T> test) {
    boolean in = criterion.items().isEmpty() || any(criterion.items(), test);
    return in && !any(criterion.except(), test);
  }

  // Plain loops: these are asked millions of times.

  private static <T> boolean any(Collection<T> items, Predicate<T> test) {
    for (T item : items) {
      if (test.test(item)) {
        return true;
      }
    }
    return false;
  }

  private static <T> T first(Collection<T> items, Predicate<T> test) {
    for (T item : items) {
      if (test.test(item)) {
        return item;
      }
    }
    throw new NoSuchElementException();
  }

  private boolean in(AddressItem item, Connection.Endpoint end) {
    if (item instanceof AddressItem.Literal literal) {
      return literal.range().contains(end.address());
    }
    String name = ((AddressItem.Named) item).name();
    for (Feed feed : rulebase.feeds()) {
      if (feed.set(name) instanceof FeedSet.Addresses set) {
        return set.addresses().ranges().stream().anyMatch(range -> range.contains(end.address()));
      }
    }
    AddressObject object = first(rulebase.addresses(), o -> o.name().equalsIgnoreCase(name));
    return any(object.members(), member -> in(member, end));
  }

  private boolean in(ServiceItem item, Connection c) {
    if (item instanceof ServiceLiteral literal) {
      boolean detail =
          literal.protocol() == c.protocol()
              && literal.firstDetail() <= c.detail()
              && c.detail() <= literal.lastDetail();
      boolean anySource = literal.firstSource() == 0 && literal.lastSource() == 65535;
      return detail
          && (anySource
              || (literal.firstSource() <= c.sourcePort()
                  && c.sourcePort() <= literal.lastSource()));
    }
    if (item instanceof ServiceItem.UsualPorts) {
      return onUsualPorts(c);
    }
    String name = ((ServiceItem.Named) item).name();
    ServiceObject object = first(rulebase.services(), o -> o.name().equalsIgnoreCase(name));
    return any(object.members(), member -> in(member, c));
  }

  /** Whether usual ports are excepted, the application is not known, and one has the service. */
  private boolean mayBeUsual(ServiceItem item, Connection c) {
    return item instanceof ServiceItem.UsualPorts
        && c.terms().get(Coordinate.APPLICATION) == null
        && rulebase.vocabularies().stream()
            .flatMap(vocabulary -> vocabulary.applications().stream())
            .flatMap(fact -> fact.ports().stream())
            .anyMatch(port -> in(port, c));
  }

  /** Whether the catalogue gives the service for the application that the connection is of. */
  private boolean onUsualPorts(Connection c) {
    String application = c.terms().get(Coordinate.APPLICATION);
    if (application == null) {
      return false;
    }
    for (Vocabulary vocabulary : rulebase.vocabularies()) {
      for (ApplicationFact fact : vocabulary.applications()) {
        boolean meant = fact.uses().contains(vocabulary.values().indexOf(application));
        if (meant && fact.ports().stream().anyMatch(port -> in(port, c))) {
          return true;
        }
      }
    }
    return false;
  }
}
