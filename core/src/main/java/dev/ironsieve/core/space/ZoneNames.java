package dev.ironsieve.core.space;

import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.IntSet;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** Looks up zones by name; they are numbered in their order. */
final class ZoneNames {
  private final List<String> names;
  private final List<AddressSet> networks;
  private final List<List<AddressRange>> declared = new ArrayList<>(); // by zone
  private final Map<String, Integer> numbers = new HashMap<>(); // by key
  private final Map<String, Integer> asWritten = new HashMap<>(); // the same by name
  private final IntSet all;
  private final Map<Criterion<String>, IntSet> sets;

  /**
   * @param zones if there is none, there is one without a name that holds every address
   * @param like of another state, or null
   */
  ZoneNames(List<Zone> zones, ZoneNames like) {
    List<String> own = new ArrayList<>();
    List<AddressSet> held = new ArrayList<>();
    for (Zone zone : zones) {
      numbers.put(Names.key(zone.name()), own.size());
      asWritten.put(zone.name(), own.size());
      own.add(zone.name());
      declared.add(zone.networks());
      held.add(zone.networks().isEmpty() ? AddressSet.ALL : AddressSet.of(zone.networks()));
    }
    if (own.isEmpty()) {
      own.add("");
      held.add(AddressSet.ALL);
    }
    names = List.copyOf(own);
    networks = List.copyOf(held);
    boolean same = like != null && names.equals(like.names) && networks.equals(like.networks);
    all = same ? like.all : IntSet.range(0, own.size() - 1);
    sets = same ? like.sets : new ConcurrentHashMap<>();
  }

  /** Whether zones, and the addresses in them, are those of another state. */
  boolean areThoseOf(ZoneNames other) {
    return all == other.all;
  }

  List<String> names() {
    return names;
  }

  /** The addresses that can occur in a zone. */
  AddressSet networks(int zone) {
    return networks.get(zone);
  }

  /** The number of a zone, or -1 for null and for names that no zone has. */
  int number(String name) {
    if (numbers.isEmpty()) {
      return 0;
    }
    if (name == null) {
      return -1;
    }
    Integer known = asWritten.get(name);
    return known != null ? known : numbers.getOrDefault(Names.key(name), -1);
  }

  /** See {@link Resolution#zoneOf}. */
  String of(Address address) {
    String best = null;
    int bestLength = -1;
    String open = null;
    int opens = 0;
    for (int zone = 0; zone < names.size(); zone++) {
      if (networks.get(zone).isAll()) {
        open = names.get(zone);
        opens++;
        continue;
      }
      for (AddressRange network : declared.get(zone)) {
        if (network.contains(address)) {
          int length = Math.max(0, network.prefixLength());
          if (length > bestLength) {
            best = names.get(zone);
            bestLength = length;
          }
        }
      }
    }
    String found = best == null && opens == 1 ? open : best;
    return found == null || found.isEmpty() ? null : found;
  }

  /** The numbers of the zones that a criterion stands for. */
  IntSet set(Criterion<String> criterion) {
    if (criterion.isAny()) {
      return all;
    }
    return sets.computeIfAbsent(
        criterion,
        c -> {
          IntSet in = c.items().isEmpty() ? all : numbers(c.items());
          IntSet zones = in.minus(numbers(c.except()));
          return zones.equals(all) ? all : zones;
        });
  }

  private IntSet numbers(List<String> mentioned) {
    IntSet out = IntSet.EMPTY;
    for (String name : mentioned) {
      out = out.union(IntSet.of(numbers.get(Names.key(name))));
    }
    return out;
  }
}
