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
import java.util.Set;

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
final class EndpointLine extends Line {
  /** What a rule says of one end. */
  record Side(IntSet zones, AddressSet addresses) {}

  private final Resolution resolution;
  private final Slice[][] slices; // [family][zone]
  private final Map<IntSet, Map<AddressSet, IntSet[]>> labelled = new IdentityHashMap<>();
  private final IntSet[] familyLabels = new IntSet[Family.values().length];

  /**
   * @param known of another state over the same zones, or null; if it was made for the same sides
   *     it is returned
   */
  static EndpointLine of(Resolution resolution, Collection<Side> sides, Line known) {
    return known instanceof EndpointLine line && line.isOf(sides)
        ? line
        : new EndpointLine(resolution, sides);
  }

  private boolean isOf(Collection<Side> sides) {
    Map<IntSet, Set<AddressSet>> asked = new IdentityHashMap<>();
    for (Side side : sides) {
      asked
          .computeIfAbsent(side.zones, z -> Collections.newSetFromMap(new IdentityHashMap<>()))
          .add(side.addresses);
    }
    return asked.size() == labelled.size()
        && asked.entrySet().stream()
            .allMatch(
                entry ->
                    labelled
                        .getOrDefault(entry.getKey(), Map.of())
                        .keySet()
                        .equals(entry.getValue()));
  }

  EndpointLine(Resolution resolution, Collection<Side> sides) {
    this.resolution = resolution;
    int zones = resolution.zoneNames().size();
    slices = new Slice[Family.values().length][zones];
    List<List<AddressSet>> perZone = new ArrayList<>();
    for (int zone = 0; zone < zones; zone++) {
      perZone.add(new ArrayList<>());
    }
    List<Side> distinct = new ArrayList<>();
    for (Side side : sides) {
      Map<AddressSet, IntSet[]> known =
          labelled.computeIfAbsent(side.zones, z -> new IdentityHashMap<>());
      if (!known.containsKey(side.addresses)) {
        known.put(side.addresses, null);
        distinct.add(side);
        if (!side.addresses.isAll()) {
          side.zones.forEach(zone -> perZone.get(zone).add(side.addresses));
        }
      }
    }
    int classes = 0;
    for (Family family : Family.values()) {
      for (int zone = 0; zone < zones; zone++) {
        int number = family.ordinal() * zones + zone;
        Slice slice = cut(resolution.networks(zone), family, number, perZone.get(zone));
        slice.before = classes;
        classes += slice.runs();
        slices[family.ordinal()][zone] = slice;
      }
    }
    spread(classes);
    for (Family family : Family.values()) {
      Slice[] own = slices[family.ordinal()];
      int from = own[0].before;
      int to = own[zones - 1].before + own[zones - 1].runs();
      familyLabels[family.ordinal()] =
          from == to ? IntSet.EMPTY : IntSet.range(label(from), label(to) - 1);
    }
    for (Side side : distinct) {
      labelled.get(side.zones).put(side.addresses, compute(side.zones, side.addresses));
    }
  }

  /** What rules say of this end is labelled when it is asked. */
  private EndpointLine(EndpointLine other) {
    resolution = other.resolution;
    slices = new Slice[other.slices.length][];
    for (int family = 0; family < slices.length; family++) {
      slices[family] = Arrays.stream(other.slices[family]).map(Slice::new).toArray(Slice[]::new);
    }
    spread(other.classes());
    Arrays.setAll(familyLabels, family -> here(other.familyLabels[family], other));
  }

  @Override
  EndpointLine again() {
    return new EndpointLine(this);
  }

  private static boolean isLess(long high, long low, long otherHigh, long otherLow) {
    int byHigh = Long.compareUnsigned(high, otherHigh);
    return byHigh < 0 || (byHigh == 0 && Long.compareUnsigned(low, otherLow) < 0);
  }

  /** The networks of a zone, cut where some sets begin and behind where they end. */
  private static Slice cut(AddressSet zone, Family family, int number, List<AddressSet> sets) {
    List<AddressRange> networks =
        zone.ranges().stream().filter(network -> network.family() == family).toList();
    if (networks.isEmpty()) {
      return new Slice(family, number, 0);
    }
    AddressRange around = new AddressRange(networks.getFirst().first(), networks.getLast().last());
    Cuts cuts = family == Family.IPV4 ? Cuts.ofIpv4(around, sets) : Cuts.ofIpv6(around, sets);
    Slice slice = new Slice(family, number, cuts.low.length + networks.size());
    int at = 0;
    for (AddressRange network : networks) {
      long high = network.first().high();
      long low = network.first().low();
      Address last = network.last();
      while (at < cuts.low.length && !isLess(high, low, cuts.high[at], cuts.low[at])) {
        at++;
      }
      while (at < cuts.low.length
          && !isLess(last.high(), last.low(), cuts.high[at], cuts.low[at])) {
        long before = cuts.low[at] == 0 ? cuts.high[at] - 1 : cuts.high[at];
        slice.add(high, low, before, cuts.low[at] - 1);
        high = cuts.high[at];
        low = cuts.low[at];
        at++;
      }
      slice.add(high, low, last.high(), last.low());
    }
    slice.index();
    return slice;
  }

  /**
   * Where ranges begin, and behind where they end, ascending, each once; 128 bits in two numbers,
   * unsigned. Those that do not matter to the addresses {@code around} are left out.
   */
  private record Cuts(long[] high, long[] low) {
    static Cuts ofIpv4(AddressRange around, List<AddressSet> sets) {
      long first = around.first().low();
      long last = around.last().low();
      long[] cuts = new long[16];
      int count = 0;
      for (AddressSet set : sets) {
        List<AddressRange> ranges = set.ranges();
        for (int i = 0; i < ranges.size(); i++) {
          AddressRange range = ranges.get(i);
          long from = range.first().low();
          long behind = range.last().low() + 1;
          if (range.family() != Family.IPV4 || from > last || behind < first) {
            continue;
          }
          if (count + 2 > cuts.length) {
            cuts = Arrays.copyOf(cuts, count * 2);
          }
          cuts[count++] = from;
          cuts[count++] = behind;
        }
      }
      Arrays.sort(cuts, 0, count);
      int distinct = 0;
      for (int i = 0; i < count; i++) {
        if (distinct == 0 || cuts[i] != cuts[distinct - 1]) {
          cuts[distinct++] = cuts[i];
        }
      }
      return new Cuts(new long[distinct], Arrays.copyOf(cuts, distinct));
    }

    static Cuts ofIpv6(AddressRange around, List<AddressSet> sets) {
      List<Address> cuts = new ArrayList<>();
      for (AddressSet set : sets) {
        for (AddressRange range : set.ranges()) {
          if (range.family() == Family.IPV6
              && range.first().compareTo(around.last()) <= 0
              && around.first().compareTo(range.last()) <= 0) {
            cuts.add(range.first());
            range.behind().ifPresent(cuts::add);
          }
        }
      }
      cuts.sort(null);
      long[] high = new long[cuts.size()];
      long[] low = new long[cuts.size()];
      int distinct = 0;
      for (Address cut : cuts) {
        if (distinct == 0 || high[distinct - 1] != cut.high() || low[distinct - 1] != cut.low()) {
          high[distinct] = cut.high();
          low[distinct++] = cut.low();
        }
      }
      return new Cuts(Arrays.copyOf(high, distinct), Arrays.copyOf(low, distinct));
    }
  }

  /** The labels of one family. */
  IntSet family(Family family) {
    return familyLabels[family.ordinal()];
  }

  /**
   * The labels of what a rule says of this end, for each family; null if there is no room to tell
   * it apart.
   */
  IntSet[] labels(IntSet zones, AddressSet addresses) {
    Map<AddressSet, IntSet[]> known = labelled.computeIfAbsent(zones, z -> new IdentityHashMap<>());
    IntSet[] labels = known.get(addresses);
    if (labels == null && (addresses.isAll() || separated(zones, addresses))) {
      labels = compute(zones, addresses);
      known.put(addresses, labels);
    }
    return labels;
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

  private IntSet[] compute(IntSet zones, AddressSet addresses) {
    IntSet[] labels = new IntSet[slices.length];
    for (Family family : Family.values()) {
      labels[family.ordinal()] = compute(zones, addresses, family);
    }
    return labels;
  }

  private IntSet compute(IntSet zones, AddressSet addresses, Family family) {
    IntSet.Builder out = new IntSet.Builder();
    zones.forEach(zone -> add(out, slices[family.ordinal()][zone], family, addresses));
    IntSet labels = out.build();
    return intern(labels.equals(family(family)) ? family(family) : labels);
  }

  private void add(IntSet.Builder out, Slice slice, Family family, AddressSet addresses) {
    if (addresses.isAll()) {
      addRuns(out, slice, 0, slice.runs());
      return;
    }
    for (AddressRange range : addresses.ranges()) {
      if (range.family() == family && !slice.isBeside(range)) {
        int from = slice.at(range.first());
        boolean inside = from >= 0 && slice.beginsAt(from, range.first());
        addRuns(out, slice, inside ? from : from + 1, slice.at(range.last()) + 1);
      }
    }
  }

  /** Adds the runs from {@code from}, included, to {@code to}, not included. */
  private void addRuns(IntSet.Builder out, Slice slice, int from, int to) {
    if (from < to) {
      out.addInOrder(label(slice.before + from), label(slice.before + to) - 1);
    }
  }

  /**
   * An endpoint of the class that holds {@code label}: the first of {@code preferred} that is one,
   * or else a host rather than the address of a network.
   */
  Endpoint value(int label, List<Address> preferred) {
    int rank = rankOf(label);
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

  /** The classes of those of some addresses that can occur where {@code label} is. */
  int[] familiar(int label, List<Address> addresses) {
    Slice slice = sliceOf(rankOf(label));
    int[] out = new int[addresses.size()];
    int count = 0;
    for (Address address : addresses) {
      int found = address.family() == slice.family ? labelOf(zone(slice), address) : -1;
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
  int labelOf(int zone, Address address) {
    Slice slice = slices[address.family().ordinal()][zone];
    int run = slice.at(address);
    return run >= 0 && !slice.endsBefore(run, address) ? label(slice.before + run) : -1;
  }

  /** The class on another line over the same zones that holds some endpoint of a class here. */
  int labelIn(EndpointLine other, int label) {
    int rank = rankOf(label);
    Slice slice = sliceOf(rank);
    return other.labelOf(zone(slice), slice.first(rank - slice.before));
  }

  /**
   * The endpoints of a set of labels in words: ranges with their zones, or whole zones; O(zones +
   * classes of the set).
   */
  List<String> words(IntSet labels) {
    List<String> out = new ArrayList<>();
    for (Slice[] ofFamily : slices) {
      for (Slice slice : ofFamily) {
        String name = resolution.zoneNames().get(zone(slice));
        if (!name.isEmpty() && slice.runs() > 0 && labels.containsAll(labels(slice))) {
          out.add(name + " (" + slice.family.word() + ")");
          continue;
        }
        for (AddressRange range : ranges(slice, labels)) {
          out.add(name.isEmpty() ? range.toString() : range + " in " + name);
        }
      }
    }
    return out;
  }

  private IntSet labels(Slice slice) {
    return IntSet.range(label(slice.before), label(slice.before + slice.runs()) - 1);
  }

  /** The addresses of the slice whose classes are in a set of labels. */
  private List<AddressRange> ranges(Slice slice, IntSet labels) {
    List<AddressRange> out = new ArrayList<>();
    int end = label(slice.before + slice.runs());
    for (int i = labels.interval(label(slice.before));
        i < labels.intervals() && labels.first(i) < end;
        i++) {
      slice.addRanges(
          out,
          Math.max(0, rank(labels.first(i)) - slice.before),
          Math.min(slice.runs(), rank(labels.last(i) + 1) - slice.before));
    }
    return out;
  }
}
