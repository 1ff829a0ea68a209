package dev.ironsieve.core.space;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.TransportSet;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Looks up the names that rules mention. Equal criteria give the same set, not merely an equal. */
public final class Resolution {
  private final List<String> zoneNames;
  private final List<AddressSet> zoneNetworks;
  private final IntSet allZones;
  private final Map<String, Integer> zoneNumbers = new HashMap<>();
  private final Map<String, AddressObject> addressObjects = new HashMap<>();
  private final Map<String, ServiceObject> serviceObjects = new HashMap<>();
  private final Map<Criterion<String>, IntSet> zoneSets = new HashMap<>();
  private final Map<Criterion<AddressItem>, AddressSet> addressSets = new HashMap<>();
  private final Map<Criterion<ServiceItem>, TransportSet> serviceSets = new HashMap<>();

  /** A rulebase without zones is read as having one zone without a name that holds everything. */
  public Resolution(Rulebase rulebase) {
    List<String> names = new ArrayList<>();
    List<AddressSet> networks = new ArrayList<>();
    for (Zone zone : rulebase.zones()) {
      zoneNumbers.put(Names.key(zone.name()), names.size());
      names.add(zone.name());
      networks.add(zone.networks().isEmpty() ? AddressSet.ALL : AddressSet.of(zone.networks()));
    }
    if (names.isEmpty()) {
      names.add("");
      networks.add(AddressSet.ALL);
    }
    zoneNames = List.copyOf(names);
    zoneNetworks = List.copyOf(networks);
    allZones = IntSet.range(0, names.size() - 1);
    rulebase.addresses().forEach(o -> addressObjects.put(Names.key(o.name()), o));
    rulebase.services().forEach(o -> serviceObjects.put(Names.key(o.name()), o));
  }

  /** Names of the zones by number; a single empty name if the rulebase has no zones. */
  public List<String> zoneNames() {
    return zoneNames;
  }

  /** The addresses that can occur in zone {@code number}. */
  public AddressSet networks(int number) {
    return zoneNetworks.get(number);
  }

  /** The zone's number, or -1 for null and for names that no zone has. */
  public int zoneNumber(String name) {
    if (zoneNumbers.isEmpty()) {
      return 0;
    }
    return name == null ? -1 : zoneNumbers.getOrDefault(Names.key(name), -1);
  }

  public Match match(Rule rule) {
    return new Match(
        zones(rule.fromZones()),
        addresses(rule.fromAddresses()),
        zones(rule.toZones()),
        addresses(rule.toAddresses()),
        services(rule.services()));
  }

  private IntSet zones(Criterion<String> criterion) {
    return zoneSets.computeIfAbsent(
        criterion,
        c -> {
          IntSet in = c.items().isEmpty() ? allZones : numbers(c.items());
          return in.minus(numbers(c.except()));
        });
  }

  private IntSet numbers(List<String> names) {
    IntSet out = IntSet.EMPTY;
    for (String name : names) {
      out = out.union(IntSet.of(zoneNumbers.get(Names.key(name))));
    }
    return out;
  }

  /** The addresses that a criterion stands for. */
  public AddressSet addresses(Criterion<AddressItem> criterion) {
    return addressSets.computeIfAbsent(
        criterion,
        c -> {
          AddressSet in = c.items().isEmpty() ? AddressSet.ALL : addresses(c.items());
          return c.except().isEmpty() ? in : in.minus(addresses(c.except()));
        });
  }

  private AddressSet addresses(List<AddressItem> items) {
    List<AddressRange> ranges = new ArrayList<>();
    collect(items, ranges);
    return AddressSet.of(ranges);
  }

  private void collect(List<AddressItem> items, List<AddressRange> out) {
    for (AddressItem item : items) {
      switch (item) {
        case AddressItem.Literal literal -> out.add(literal.range());
        case AddressItem.Named named ->
            collect(addressObjects.get(Names.key(named.name())).members(), out);
      }
    }
  }

  private TransportSet services(Criterion<ServiceItem> criterion) {
    return serviceSets.computeIfAbsent(
        criterion,
        c -> {
          TransportSet in = c.items().isEmpty() ? TransportSet.ALL : services(c.items());
          return c.except().isEmpty() ? in : in.minus(services(c.except()));
        });
  }

  private TransportSet services(List<ServiceItem> items) {
    TransportSet out = TransportSet.EMPTY;
    for (ServiceItem item : items) {
      out =
          out.union(
              switch (item) {
                case ServiceLiteral literal -> literal.set();
                case ServiceItem.Named named ->
                    services(serviceObjects.get(Names.key(named.name())).members());
              });
    }
    return out;
  }
}
