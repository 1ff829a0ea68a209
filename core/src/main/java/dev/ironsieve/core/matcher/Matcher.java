package dev.ironsieve.core.matcher;

import dev.ironsieve.core.matcher.Trace.Part;
import dev.ironsieve.core.matcher.Trace.Passed;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.TransportSet;
import dev.ironsieve.core.space.Match;
import dev.ironsieve.core.space.Resolution;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The first enabled rule whose criteria hold decides. Compiled once for a rulebase; a lookup asks
 * each distinct criterion at most once, O(rules + criteria · log size).
 */
public final class Matcher {
  private final Resolution resolution;
  private final List<Rule> rules;
  private final int[][] criteria; // per rule the number of its criterion for each part
  private final List<List<Object>> sets = new ArrayList<>(); // per part the distinct criteria

  public Matcher(Rulebase rulebase) {
    this(new Resolution(rulebase), rulebase.rules());
  }

  /** For rules whose names {@code resolution} knows. */
  public Matcher(Resolution resolution, List<Rule> rules) {
    this.resolution = resolution;
    this.rules = rules;
    List<Map<Object, Integer>> numbers = new ArrayList<>();
    for (int part = 0; part < Part.values().length; part++) {
      numbers.add(new IdentityHashMap<>());
      sets.add(new ArrayList<>());
    }
    criteria = new int[rules.size()][];
    for (int rule = 0; rule < rules.size(); rule++) {
      Match match = resolution.match(rules.get(rule));
      Object[] said = {
        match.fromZones(), match.from(), match.toZones(), match.to(), match.services()
      };
      criteria[rule] = new int[said.length];
      for (int part = 0; part < said.length; part++) {
        List<Object> known = sets.get(part);
        Integer number = numbers.get(part).putIfAbsent(said[part], known.size());
        if (number == null) {
          number = known.size();
          known.add(said[part]);
        }
        criteria[rule][part] = number;
      }
    }
  }

  /** The rule that decides, or nothing if the closing rule does. */
  public Optional<Rule> decide(Connection connection) {
    Lookup lookup = new Lookup(connection);
    for (int i = 0; i < rules.size(); i++) {
      if (rules.get(i).enabled() && lookup.holds(i)) {
        return Optional.of(rules.get(i));
      }
    }
    return Optional.empty();
  }

  public Trace trace(Connection connection) {
    Lookup lookup = new Lookup(connection);
    List<Passed> passed = new ArrayList<>();
    for (int i = 0; i < rules.size(); i++) {
      Rule rule = rules.get(i);
      if (!rule.enabled()) {
        passed.add(new Passed(rule, Set.of()));
        continue;
      }
      Set<Part> failing = lookup.failing(i);
      if (failing.isEmpty()) {
        return new Trace(List.copyOf(passed), rule);
      }
      passed.add(new Passed(rule, failing));
    }
    return new Trace(List.copyOf(passed), null);
  }

  /** One connection, with the answers of the criteria that were asked so far. */
  private final class Lookup {
    private static final byte YES = 1;
    private static final byte NO = 2;
    private static final Part[] PARTS = Part.values();

    private final Connection connection;
    private final int fromZone;
    private final int toZone;
    private final byte[][] answers = new byte[PARTS.length][];

    Lookup(Connection connection) {
      this.connection = connection;
      fromZone = resolution.zoneNumber(connection.from().zone());
      toZone = resolution.zoneNumber(connection.to().zone());
      for (int part = 0; part < PARTS.length; part++) {
        answers[part] = new byte[sets.get(part).size()];
      }
    }

    boolean holds(int rule) {
      for (int part = 0; part < PARTS.length; part++) {
        if (!holds(part, criteria[rule][part])) {
          return false;
        }
      }
      return true;
    }

    Set<Part> failing(int rule) {
      Set<Part> out = EnumSet.noneOf(Part.class);
      for (int part = 0; part < PARTS.length; part++) {
        if (!holds(part, criteria[rule][part])) {
          out.add(PARTS[part]);
        }
      }
      return out;
    }

    private boolean holds(int part, int number) {
      byte known = answers[part][number];
      if (known == 0) {
        known = ask(PARTS[part], sets.get(part).get(number)) ? YES : NO;
        answers[part][number] = known;
      }
      return known == YES;
    }

    private boolean ask(Part part, Object set) {
      return switch (part) {
        case FROM_ZONE -> inZones((IntSet) set, fromZone);
        case FROM_ADDRESS -> inAddresses((AddressSet) set, connection.from());
        case TO_ZONE -> inZones((IntSet) set, toZone);
        case TO_ADDRESS -> inAddresses((AddressSet) set, connection.to());
        case SERVICE -> inServices((TransportSet) set);
      };
    }

    private boolean inZones(IntSet zones, int zone) {
      return zone < 0 ? zones.size() == resolution.zoneNames().size() : zones.contains(zone);
    }

    private boolean inAddresses(AddressSet addresses, Connection.Endpoint end) {
      return end.address() == null
          ? addresses.equals(AddressSet.ALL)
          : addresses.contains(end.address());
    }

    private boolean inServices(TransportSet services) {
      if (connection.protocol() == Connection.UNKNOWN) {
        return services.equals(TransportSet.ALL);
      }
      return services.contains(connection.protocol(), connection.detail(), connection.sourcePort());
    }
  }
}
