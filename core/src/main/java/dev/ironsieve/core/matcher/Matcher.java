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
import java.util.Collections;
import java.util.EnumSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * The first enabled rule whose criteria hold decides. Compiled once for a rulebase. A decision asks
 * only the rules between the connection's zones; a trace asks all, but each distinct criterion at
 * most once, O(rules + criteria · log size).
 */
public final class Matcher {
  /** All sets of parts, by the bits of their ordinals. */
  private static final List<Set<Part>> FAILING =
      IntStream.range(0, 1 << Part.values().length).mapToObj(Matcher::parts).toList();

  private final Resolution resolution;
  private final List<Rule> rules;
  private final int[][] criteria; // per rule the number of its criterion for each part
  private final List<List<Object>> sets = new ArrayList<>(); // per part the distinct criteria
  private final int[][][] zonePairs; // enabled rules between two zones, found when first asked for

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
    int zones = resolution.zoneNames().size();
    zonePairs = new int[zones + 1][zones + 1][];
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

  private static Set<Part> parts(int bits) {
    Set<Part> out = EnumSet.noneOf(Part.class);
    for (Part part : Part.values()) {
      if ((bits & 1 << part.ordinal()) != 0) {
        out.add(part);
      }
    }
    return Collections.unmodifiableSet(out);
  }

  /** The rule that decides, or nothing if the closing rule does. */
  public Optional<Rule> decide(Connection connection) {
    Asked asked = new Asked(connection);
    for (int rule : between(asked.fromZone, asked.toZone)) {
      if (asked.holds(Part.SERVICE, rule)
          && asked.holds(Part.FROM_ADDRESS, rule)
          && asked.holds(Part.TO_ADDRESS, rule)) {
        return Optional.of(rules.get(rule));
      }
    }
    return Optional.empty();
  }

  /** The enabled rules whose zones hold, in order; -1 is an unknown zone. */
  private int[] between(int fromZone, int toZone) {
    int[] known = zonePairs[fromZone + 1][toZone + 1];
    if (known == null) {
      known =
          IntStream.range(0, rules.size())
              .filter(rule -> rules.get(rule).enabled())
              .filter(rule -> inZones((IntSet) criterion(Part.FROM_ZONE, rule), fromZone))
              .filter(rule -> inZones((IntSet) criterion(Part.TO_ZONE, rule), toZone))
              .toArray();
      zonePairs[fromZone + 1][toZone + 1] = known; // Two threads may find the same; that is all.
    }
    return known;
  }

  private Object criterion(Part part, int rule) {
    return sets.get(part.ordinal()).get(criteria[rule][part.ordinal()]);
  }

  private boolean inZones(IntSet zones, int zone) {
    return zone < 0 ? zones.size() == resolution.zoneNames().size() : zones.contains(zone);
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

  /** One connection, and whether a criterion holds for it. */
  private class Asked {
    final Connection connection;
    final int fromZone;
    final int toZone;

    Asked(Connection connection) {
      this.connection = connection;
      fromZone = resolution.zoneNumber(connection.from().zone());
      toZone = resolution.zoneNumber(connection.to().zone());
    }

    boolean holds(Part part, int rule) {
      Object set = criterion(part, rule);
      return switch (part) {
        case FROM_ZONE -> inZones((IntSet) set, fromZone);
        case FROM_ADDRESS -> inAddresses((AddressSet) set, connection.from());
        case TO_ZONE -> inZones((IntSet) set, toZone);
        case TO_ADDRESS -> inAddresses((AddressSet) set, connection.to());
        case SERVICE -> inServices((TransportSet) set);
      };
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

  /** The same with the answers of the criteria that were asked so far. */
  private final class Lookup extends Asked {
    private static final byte YES = 1;
    private static final byte NO = 2;
    private static final Part[] PARTS = Part.values();

    private final byte[][] answers = new byte[PARTS.length][];

    Lookup(Connection connection) {
      super(connection);
      for (int part = 0; part < PARTS.length; part++) {
        answers[part] = new byte[sets.get(part).size()];
      }
    }

    Set<Part> failing(int rule) {
      int failing = 0;
      for (Part part : PARTS) {
        int number = criteria[rule][part.ordinal()];
        byte known = answers[part.ordinal()][number];
        if (known == 0) {
          known = holds(part, rule) ? YES : NO;
          answers[part.ordinal()][number] = known;
        }
        failing |= known == NO ? 1 << part.ordinal() : 0;
      }
      return FAILING.get(failing);
    }
  }
}
