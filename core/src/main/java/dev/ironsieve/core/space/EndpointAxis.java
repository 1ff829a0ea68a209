package dev.ironsieve.core.space;

import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.IntSet;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * One end of a connection: a zone and an address that can occur in it, as one dimension. All of
 * IPv4 stands before all of IPv6; within a family zone by zone, then by address:
 *
 * <pre>
 *   | v4 zone 0 ..... | v4 zone 1 ... | ... | v6 zone 0 ... | v6 zone 1 .. |
 * </pre>
 *
 * A class is a run of addresses in one zone.
 */
final class EndpointAxis extends Axis {
  /** The criterion on one end. */
  record Side(IntSet zones, AddressSet addresses) {}

  private final Resolution resolution;
  private final Slice[][] slices; // [family][zone]
  private final Map<IntSet, Map<AddressSet, IntSet[]>> coded = new IdentityHashMap<>();
  private final IntSet[] familyCodes = new IntSet[Family.values().length];

  /**
   * @param known of another state over the same zones, or null; if it was made for the same sides
   *     it is returned
   */
  static EndpointAxis of(Resolution resolution, Collection<Side> sides, Axis known) {
    return known instanceof EndpointAxis line && line.isOf(sides)
        ? line
        : new EndpointAxis(resolution, sides);
  }

  private boolean isOf(Collection<Side> sides) {
    Map<IntSet, Set<AddressSet>> asked = new IdentityHashMap<>();
    for (Side side : sides) {
      asked
          .computeIfAbsent(side.zones, z -> Collections.newSetFromMap(new IdentityHashMap<>()))
          .add(side.addresses);
    }
    return asked.size() == coded.size()
        && asked.entrySet().stream()
            .allMatch(
                entry ->
                    coded.getOrDefault(entry.getKey(), Map.of()).keySet().equals(entry.getValue()));
  }

  EndpointAxis(Resolution resolution, Collection<Side> sides) {
    this.resolution = resolution;
    int zones = resolution.zoneNames().size();
    slices = new Slice[Family.values().length][zones];
    List<Side> distinct = new ArrayList<>();
    Map<AddressSet, Integer> numbers = new IdentityHashMap<>();
    List<AddressSet> sets = new ArrayList<>();
    for (Side side : sides) {
      Map<AddressSet, IntSet[]> known =
          coded.computeIfAbsent(side.zones, z -> new IdentityHashMap<>());
      if (!known.containsKey(side.addresses)) {
        known.put(side.addresses, null);
        distinct.add(side);
        if (numbers.putIfAbsent(side.addresses, sets.size()) == null) {
          sets.add(side.addresses);
        }
      }
    }
    int[] setOf = distinct.stream().mapToInt(side -> numbers.get(side.addresses)).toArray();
    Ranges[] ranges = ranges(sets);
    int classes = 0;
    for (Ranges own : ranges) {
      int family = own.family.ordinal();
      NetworkCuts[] cuts = cuts(own, distinct, setOf);
      for (int zone = 0; zone < zones; zone++) {
        Slice slice = cuts[zone].slice(family * zones + zone);
        slice.before = classes;
        classes += slice.runs();
        slices[family][zone] = slice;
      }
    }
    assignCodes(classes);
    for (Family family : Family.values()) {
      Slice[] own = slices[family.ordinal()];
      int from = own[0].before;
      int to = own[zones - 1].before + own[zones - 1].runs();
      familyCodes[family.ordinal()] =
          from == to ? IntSet.EMPTY : IntSet.range(code(from), code(to) - 1);
    }
    for (int i = 0; i < setOf.length; i++) {
      Side side = distinct.get(i);
      coded.get(side.zones).put(side.addresses, compute(side, ranges, setOf[i]));
    }
  }

  private static Ranges[] ranges(List<AddressSet> sets) {
    return Arrays.stream(Family.values())
        .map(family -> new Ranges(family, sets))
        .toArray(Ranges[]::new);
  }

  /** The cuts of each zone's networks by the criteria. */
  private NetworkCuts[] cuts(Ranges ranges, List<Side> sides, int[] setOf) {
    NetworkCuts[] cuts = new NetworkCuts[slices[0].length];
    for (int zone = 0; zone < cuts.length; zone++) {
      cuts[zone] =
          new NetworkCuts(
              ranges.family,
              resolution.networks(zone).ranges().stream()
                  .filter(network -> network.family() == ranges.family)
                  .toList());
    }
    for (int i = 0; i < setOf.length; i++) {
      Side side = sides.get(i);
      if (side.addresses.isAll()) {
        continue;
      }
      for (int range = ranges.begin(setOf[i]);
          range < ranges.end(setOf[i]);
          range = ranges.next(range)) {
        int own = range;
        side.zones.forEach(zone -> cuts[zone].add(ranges, own));
      }
    }
    return cuts;
  }

  @Override
  int[] borders() {
    IntStream.Builder out = IntStream.builder();
    for (Slice[] ofFamily : slices) {
      for (Slice slice : ofFamily) {
        for (int run = 0; run < slice.runs(); run++) {
          if (run == 0 || !slice.continues(run)) {
            out.add(code(slice.before + run));
          }
        }
      }
    }
    return out.build().toArray();
  }

  /** The codes of one family. */
  IntSet family(Family family) {
    return familyCodes[family.ordinal()];
  }

  /**
   * The codes of a criterion on this end, for each address family; empty if there is no room for
   * its classes.
   */
  Optional<IntSet[]> codesIfRoom(IntSet zones, AddressSet addresses) {
    Map<AddressSet, IntSet[]> known = coded.computeIfAbsent(zones, z -> new IdentityHashMap<>());
    IntSet[] codes = known.get(addresses);
    if (codes == null && (addresses.isAll() || separated(zones, addresses))) {
      codes = compute(new Side(zones, addresses), ranges(List.of(addresses)), 0);
      known.put(addresses, codes);
    }
    return Optional.ofNullable(codes);
  }

  /** The codes of a criterion whose classes exist, or for which there is room. */
  IntSet[] codes(IntSet zones, AddressSet addresses) {
    return codesIfRoom(zones, addresses)
        .orElseThrow(() -> new IllegalStateException("no room for a criterion"));
  }

  private boolean separated(IntSet zones, AddressSet addresses) {
    for (AddressRange range : addresses.ranges()) {
      Address behind = range.behind().orElse(null);
      for (int i = 0; i < zones.intervals(); i++) {
        for (int zone = zones.first(i); zone <= zones.last(i); zone++) {
          if (!beginAt(range.family(), zone, range.first())
              || (behind != null && !beginAt(range.family(), zone, behind))) {
            return false;
          }
        }
      }
    }
    return true;
  }

  private boolean beginAt(Family family, int zone, Address address) {
    Slice slice = slices[family.ordinal()][zone];
    int run = slice.at(address);
    if (run < 0 || slice.beginsAt(run, address) || slice.endsBefore(run, address)) {
      return true;
    }
    if (split(slice.before + run) < 0) {
      return false;
    }
    slice.cut(run, address);
    for (Slice[] ofFamily : slices) {
      for (Slice other : ofFamily) {
        other.before += other.number > slice.number ? 1 : 0;
      }
    }
    return true;
  }

  /**
   * @param ranges of each family
   * @param set the number that the side's addresses have among them
   */
  private IntSet[] compute(Side side, Ranges[] ranges, int set) {
    return Arrays.stream(ranges).map(own -> compute(side, own, set)).toArray(IntSet[]::new);
  }

  private IntSet compute(Side side, Ranges ranges, int set) {
    IntSet.Builder out = new IntSet.Builder();
    Slice[] own = slices[ranges.family.ordinal()];
    if (side.addresses.isAll()) {
      side.zones.forEach(zone -> addRuns(out, own[zone], 0, own[zone].runs()));
    } else {
      side.zones.forEach(zone -> add(out, own[zone], ranges, set));
    }
    IntSet codes = out.build();
    return intern(codes.equals(family(ranges.family)) ? family(ranges.family) : codes);
  }

  private void add(IntSet.Builder out, Slice slice, Ranges ranges, int set) {
    for (int range = ranges.begin(set); range < ranges.end(set); range = ranges.next(range)) {
      if (!slice.isBeside(ranges, range)) {
        addRuns(out, slice, slice.from(ranges, range), slice.behind(ranges, range));
      }
    }
  }

  /** Adds the runs from {@code from}, included, to {@code to}, not included. */
  private void addRuns(IntSet.Builder out, Slice slice, int from, int to) {
    if (from < to) {
      out.addInOrder(code(slice.before + from), code(slice.before + to) - 1);
    }
  }

  /**
   * An endpoint of the class that holds {@code code}: the first of {@code preferred} that is one,
   * or else a host rather than the address of a network.
   */
  Endpoint value(int code, List<Address> preferred) {
    int rank = rankOf(code);
    Slice slice = sliceOf(rank);
    int run = rank - slice.before;
    String name = resolution.zoneNames().get(zone(slice));
    return new Endpoint(
        name.isEmpty() ? null : name,
        some(new AddressRange(slice.first(run), slice.last(run)), preferred));
  }

  /** The slice that has the class with {@code rank} classes below it. */
  private Slice sliceOf(int rank) {
    for (Slice[] ofFamily : slices) {
      for (Slice slice : ofFamily) {
        if (rank >= slice.before && rank < slice.before + slice.runs()) {
          return slice;
        }
      }
    }
    throw new IllegalArgumentException("no class has rank " + rank);
  }

  private int zone(Slice slice) {
    return slice.number % slices[0].length;
  }

  /** The classes of those of some addresses that can occur where {@code code} is. */
  int[] familiar(int code, List<Address> addresses) {
    Slice slice = sliceOf(rankOf(code));
    int[] out = new int[addresses.size()];
    int count = 0;
    for (Address address : addresses) {
      int found = address.family() == slice.family ? codeOf(zone(slice), address) : -1;
      if (found >= 0) {
        out[count++] = found;
      }
    }
    return Arrays.copyOf(out, count);
  }

  private static Address some(AddressRange run, List<Address> preferred) {
    for (Address address : preferred) {
      if (address.family() == run.family() && run.contains(address)) {
        return address;
      }
    }
    return run.someHost();
  }

  /** The class of an address in a zone, or -1 if it is not feasible; O(log classes). */
  int codeOf(int zone, Address address) {
    Slice slice = slices[address.family().ordinal()][zone];
    int run = slice.at(address);
    return run >= 0 && !slice.endsBefore(run, address) ? code(slice.before + run) : -1;
  }

  /**
   * The codes of one family that an endpoint may have; empty if none is feasible.
   *
   * @param zone its number, or -1 if it is not known
   * @param address null if it is not known
   */
  IntSet possible(Family family, int zone, Address address) {
    int first = zone < 0 ? 0 : zone;
    int last = zone < 0 ? slices[0].length - 1 : zone;
    IntSet.Builder out = new IntSet.Builder();
    for (int i = first; i <= last; i++) {
      Slice slice = slices[family.ordinal()][i];
      if (address == null) {
        addRuns(out, slice, 0, slice.runs());
      } else if (address.family() == family) {
        int code = codeOf(i, address);
        if (code >= 0) {
          int rank = rankOf(code);
          out.addInOrder(code(rank), code(rank + 1) - 1);
        }
      }
    }
    return intern(out.build());
  }

  /** The class on another line over the same zones that holds some endpoint of a class here. */
  int codeIn(EndpointAxis other, int code) {
    int rank = rankOf(code);
    Slice slice = sliceOf(rank);
    return other.codeOf(zone(slice), slice.first(rank - slice.before));
  }

  /**
   * The endpoints of a set of codes in words: whole zones, address objects that are just that, or
   * ranges, with their zones; O(zones + classes of the set).
   *
   * @param withZones whether the zone of an address is named
   */
  List<String> words(IntSet codes, boolean withZones) {
    List<String> out = new ArrayList<>();
    for (int zone = 0; zone < slices[0].length; zone++) {
      addWords(out, zone, codes, withZones);
    }
    return out;
  }

  private void addWords(List<String> out, int zone, IntSet codes, boolean withZones) {
    String name = resolution.zoneNames().get(zone);
    List<Family> whole = new ArrayList<>();
    List<AddressRange> ranges = new ArrayList<>();
    int families = 0;
    for (Slice[] ofFamily : slices) {
      Slice slice = ofFamily[zone];
      families += slice.runs() > 0 ? 1 : 0;
      if (!name.isEmpty() && slice.runs() > 0 && codes.containsAll(codes(slice))) {
        whole.add(slice.family);
      } else {
        ranges.addAll(ranges(slice, codes));
      }
    }
    String of = withZones ? name : "every address";
    if (!whole.isEmpty() && whole.size() == families) {
      out.add(of);
    } else {
      whole.forEach(family -> out.add(of + " (" + family.word() + ")"));
    }
    if (!ranges.isEmpty()) {
      String in = name.isEmpty() || !withZones ? "" : " in " + name;
      Optional<String> object = resolution.addressesCalled(AddressSet.of(ranges));
      object.ifPresentOrElse(
          called -> out.add(called + in), () -> ranges.forEach(range -> out.add(range + in)));
    }
  }

  /** The numbers of the zones in which a set of codes has addresses; O(zones). */
  List<Integer> zonesOf(IntSet codes) {
    List<Integer> out = new ArrayList<>();
    for (int zone = 0; zone < slices[0].length; zone++) {
      for (Slice[] ofFamily : slices) {
        Slice slice = ofFamily[zone];
        if (slice.runs() > 0 && codes(slice).intersects(codes) && !out.contains(zone)) {
          out.add(zone);
        }
      }
    }
    return out;
  }

  private IntSet codes(Slice slice) {
    return IntSet.range(code(slice.before), code(slice.before + slice.runs()) - 1);
  }

  /** The addresses of the slice whose classes are in a set of codes. */
  private List<AddressRange> ranges(Slice slice, IntSet codes) {
    List<AddressRange> out = new ArrayList<>();
    int end = code(slice.before + slice.runs());
    for (int i = codes.interval(code(slice.before));
        i < codes.intervals() && codes.first(i) < end;
        i++) {
      slice.addRanges(
          out,
          Math.max(0, rank(codes.first(i)) - slice.before),
          Math.min(slice.runs(), rank(codes.last(i) + 1) - slice.before));
    }
    return out;
  }
}
