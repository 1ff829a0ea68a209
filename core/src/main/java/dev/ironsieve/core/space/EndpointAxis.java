package dev.ironsieve.core.space;

import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.IntSet;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/**
 * One end of a connection: a zone and an address that can occur in it, as one dimension. All IPv4
 * pieces stand before all IPv6 pieces; within a family zone by zone, then by address:
 *
 * <pre>
 *   | v4 zone 0 ..... | v4 zone 1 ... | ... | v6 zone 0 ... | v6 zone 1 .. |
 * </pre>
 */
public final class EndpointAxis implements Axis {
  /** What a rule says of one end. */
  record Side(IntSet zones, AddressSet addresses) {}

  private record Piece(int zone, AddressRange range) {}

  private final Resolution resolution;
  private final List<Piece> pieces = new ArrayList<>();
  private final int[][] zoneStart = new int[Family.values().length][];
  private final Map<Family, IntSet> familyPieces = new EnumMap<>(Family.class);
  private final Map<Side, IntSet> pieceSets = new LinkedHashMap<>();
  private final Partition partition;

  EndpointAxis(Resolution resolution, Collection<Side> sides) {
    this.resolution = resolution;
    Set<Side> distinct = new HashSet<>(sides);
    int zones = resolution.zoneNames().size();
    Map<IntSet, Set<AddressSet>> byZones = new LinkedHashMap<>();
    for (Side side : distinct) {
      byZones.computeIfAbsent(side.zones, z -> new HashSet<>()).add(side.addresses);
    }
    List<Set<AddressSet>> perZone = new ArrayList<>();
    for (int zone = 0; zone < zones; zone++) {
      Set<AddressSet> sets = new HashSet<>();
      for (Map.Entry<IntSet, Set<AddressSet>> entry : byZones.entrySet()) {
        if (entry.getKey().contains(zone)) {
          sets.addAll(entry.getValue());
        }
      }
      perZone.add(sets);
    }
    for (Family family : Family.values()) {
      int[] start = new int[zones + 1];
      int before = pieces.size();
      for (int zone = 0; zone < zones; zone++) {
        start[zone] = pieces.size();
        cutZone(zone, family, perZone.get(zone));
      }
      start[zones] = pieces.size();
      zoneStart[family.ordinal()] = start;
      familyPieces.put(
          family, pieces.size() == before ? IntSet.EMPTY : IntSet.range(before, pieces.size() - 1));
    }
    for (Side side : distinct) {
      pieceSets.put(side, pieces(side));
    }
    List<IntSet> toSeparate = new ArrayList<>(familyPieces.values());
    toSeparate.addAll(pieceSets.values());
    partition = new Partition(pieces.size(), new HashSet<>(toSeparate));
  }

  private void cutZone(int zone, Family family, Set<AddressSet> sets) {
    TreeSet<Address> cuts = new TreeSet<>();
    for (AddressSet set : sets) {
      for (AddressRange range : set.ranges()) {
        if (range.family() == family) {
          cuts.add(range.first());
          range.behind().ifPresent(cuts::add);
        }
      }
    }
    for (AddressRange network : resolution.networks(zone).ranges()) {
      if (network.family() != family) {
        continue;
      }
      for (AddressRange range : network.cutAt(cuts)) {
        pieces.add(new Piece(zone, range));
      }
    }
  }

  private IntSet pieces(Side side) {
    IntSet.Builder out = new IntSet.Builder();
    for (Family family : Family.values()) {
      int[] start = zoneStart[family.ordinal()];
      side.zones.forEach(
          zone -> {
            for (AddressRange range : side.addresses.ranges()) {
              if (range.family() == family) {
                int from = lowest(start[zone], start[zone + 1], range.first(), true);
                int to = lowest(start[zone], start[zone + 1], range.last(), false) - 1;
                if (from <= to) {
                  out.addInOrder(from, to);
                }
              }
            }
          });
    }
    return out.build();
  }

  /** First piece in [low, high) whose first address is at or above (or: above) {@code address}. */
  private int lowest(int low, int high, Address address, boolean at) {
    while (low < high) {
      int middle = (low + high) >>> 1;
      int order = pieces.get(middle).range.first().compareTo(address);
      if (order > 0 || (at && order == 0)) {
        high = middle;
      } else {
        low = middle + 1;
      }
    }
    return low;
  }

  @Override
  public int classes() {
    return partition.classes();
  }

  /** The classes of one family that make up a side, which must be one this was built for. */
  IntSet classes(Side side, Family family) {
    return partition
        .classes(pieceSets.get(side))
        .intersect(partition.classes(familyPieces.get(family)));
  }

  /**
   * An endpoint of class {@code c}: the first of {@code preferred} that is one, or else a host
   * rather than the address of a network.
   */
  Endpoint value(int c, List<Address> preferred) {
    Piece piece = pieces.get(partition.firstPiece(c));
    String zone = resolution.zoneNames().get(piece.zone);
    String name = zone.isEmpty() ? null : zone;
    return preferred.stream()
        .map(address -> new Endpoint(name, address))
        .filter(endpoint -> classOf(endpoint) == c)
        .findFirst()
        .orElseGet(() -> new Endpoint(name, piece.range.someHost()));
  }

  /** The class of an endpoint, or -1 if it is not feasible or not wholly known. */
  public int classOf(Endpoint endpoint) {
    int zone = resolution.zoneNumber(endpoint.zone());
    if (zone < 0 || endpoint.address() == null) {
      return -1;
    }
    int[] start = zoneStart[endpoint.address().family().ordinal()];
    int piece = lowest(start[zone], start[zone + 1], endpoint.address(), false) - 1;
    boolean inside = piece >= start[zone] && pieces.get(piece).range.contains(endpoint.address());
    return inside ? partition.classOf(piece) : -1;
  }
}
