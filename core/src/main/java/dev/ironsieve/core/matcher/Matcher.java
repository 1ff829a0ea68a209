package dev.ironsieve.core.matcher;

import dev.ironsieve.core.matcher.Trace.Part;
import dev.ironsieve.core.matcher.Trace.Passed;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.TransportSet;
import dev.ironsieve.core.space.Match;
import dev.ironsieve.core.space.Resolution;
import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The first enabled rule whose criteria hold decides. What is unknown of a connection is no member
 * of anything narrower than everything.
 *
 * <p>A decision on a wholly known connection is one look into the index of the {@link Order}; a
 * decision on any other goes down the rules. A trace asks each distinct criterion at most once,
 * O(rules + criteria · log size).
 */
public final class Matcher {
  private final Order order;
  private final Resolution resolution;

  public Matcher(Rulebase rulebase) {
    this(new Order(rulebase));
  }

  /** For rules that are laid out already; has to be made again after the order was updated. */
  public Matcher(Order order) {
    this.order = order;
    resolution = order.resolution();
  }

  /** The rule that decides, or nothing if the closing rule does. */
  public Optional<Rule> decide(Connection connection) {
    int slot = slot(connection);
    return slot == Order.NONE ? Optional.empty() : Optional.of(order.rule(slot));
  }

  /** The position of the rule that decides, from 0, or -1 if the closing rule does. */
  public int position(Connection connection) {
    int slot = slot(connection);
    return slot == Order.NONE ? -1 : order.position(slot);
  }

  private int slot(Connection connection) {
    int[] point = order.space().point(connection);
    if (point != null) {
      return order.first(point);
    }
    Asked asked = new Asked(connection);
    for (int position = 0; position < order.size(); position++) {
      int slot = order.slotAt(position);
      if (order.rule(slot).enabled() && asked.failing(slot, true).isEmpty()) {
        return slot;
      }
    }
    return Order.NONE;
  }

  /** The way of a connection down the rules. */
  public Trace trace(Connection connection) {
    Asked asked = new Asked(connection);
    List<Passed> passed = new ArrayList<>();
    for (int position = 0; position < order.size(); position++) {
      int slot = order.slotAt(position);
      Rule rule = order.rule(slot);
      if (!rule.enabled()) {
        passed.add(new Passed(rule, Set.of()));
        continue;
      }
      Set<Part> failing = asked.failing(slot, false);
      if (failing.isEmpty()) {
        return new Trace(List.copyOf(passed), rule);
      }
      passed.add(new Passed(rule, failing));
    }
    return new Trace(List.copyOf(passed), null);
  }

  /** One connection, and the answers of the criteria that were asked so far. */
  private final class Asked {
    private static final Part[] PARTS = Part.values();

    private final Connection connection;
    private final int fromZone;
    private final int toZone;
    private final List<Map<Object, Boolean>> answers = new ArrayList<>();
    private final Map<Integer, Set<Part>> sets = new HashMap<>();
    private final int[] values; // by vocabulary
    private final Part[] termParts; // by vocabulary

    Asked(Connection connection) {
      this.connection = connection;
      fromZone = resolution.zoneNumber(connection.from().zone());
      toZone = resolution.zoneNumber(connection.to().zone());
      for (int part = 0; part < PARTS.length; part++) {
        answers.add(new IdentityHashMap<>());
      }
      int vocabularies = resolution.vocabularies().size();
      values = new int[vocabularies];
      termParts = new Part[vocabularies];
      for (int i = 0; i < vocabularies; i++) {
        var coordinate = resolution.vocabularies().get(i).coordinate();
        values[i] = resolution.valueNumber(i, connection.terms().get(coordinate));
        termParts[i] = Part.of(coordinate);
      }
    }

    /**
     * The criteria that do not hold.
     *
     * @param oneIsEnough whether the rest need not be asked then
     */
    Set<Part> failing(int slot, boolean oneIsEnough) {
      Match match = order.match(slot);
      int failing = bit(Part.SERVICE, match.services());
      failing |= skip(failing, oneIsEnough) ? 0 : bit(Part.FROM_ZONE, match.fromZones());
      failing |= skip(failing, oneIsEnough) ? 0 : bit(Part.TO_ZONE, match.toZones());
      failing |= skip(failing, oneIsEnough) ? 0 : bit(Part.FROM_ADDRESS, match.from());
      failing |= skip(failing, oneIsEnough) ? 0 : bit(Part.TO_ADDRESS, match.to());
      for (int i = 0; i < values.length && !skip(failing, oneIsEnough); i++) {
        IntSet wanted = match.terms().get(i);
        boolean holds =
            values[i] < 0
                ? wanted == resolution.anyTerms().get(i)
                : wanted == resolution.anyTerms().get(i) || wanted.contains(values[i]);
        failing |= holds ? 0 : 1 << termParts[i].ordinal();
      }
      return sets.computeIfAbsent(failing, Asked::parts);
    }

    private static boolean skip(int failing, boolean oneIsEnough) {
      return oneIsEnough && failing != 0;
    }

    private static Set<Part> parts(int bits) {
      Set<Part> out = EnumSet.noneOf(Part.class);
      for (Part part : PARTS) {
        if ((bits & 1 << part.ordinal()) != 0) {
          out.add(part);
        }
      }
      return Collections.unmodifiableSet(out);
    }

    /** The part's bit if its criterion does not hold. */
    private int bit(Part part, Object criterion) {
      Map<Object, Boolean> known = answers.get(part.ordinal());
      Boolean holds = known.get(criterion);
      if (holds == null) {
        holds = holds(part, criterion);
        known.put(criterion, holds);
      }
      return holds ? 0 : 1 << part.ordinal();
    }

    private boolean holds(Part part, Object criterion) {
      return switch (part) {
        case FROM_ZONE -> inZones((IntSet) criterion, fromZone);
        case TO_ZONE -> inZones((IntSet) criterion, toZone);
        case FROM_ADDRESS -> inAddresses((AddressSet) criterion, connection.from());
        case TO_ADDRESS -> inAddresses((AddressSet) criterion, connection.to());
        default -> inServices((TransportSet) criterion);
      };
    }

    private boolean inZones(IntSet zones, int zone) {
      return zone < 0 ? zones.size() == resolution.zoneNames().size() : zones.contains(zone);
    }

    private boolean inAddresses(AddressSet addresses, Connection.Endpoint end) {
      return end.address() == null ? addresses.isAll() : addresses.contains(end.address());
    }

    private boolean inServices(TransportSet services) {
      if (connection.protocol() == Connection.UNKNOWN) {
        return services.equals(TransportSet.ALL);
      }
      return services.contains(connection.protocol(), connection.detail(), connection.sourcePort());
    }
  }
}
