package dev.ironsieve.formats.rfc8519;

import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.core.sets.TransportSet;
import dev.ironsieve.core.space.Resolution;
import dev.ironsieve.core.space.ResolvedMatch;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The criteria of one rule as the matches of as many entries as they need. */
final class AclMatches {
  /** One layer 4 match; {@code protocol} is -1 for any. */
  private record Layer4(int protocol, int first, int last, int firstSource, int lastSource) {
    static final Layer4 ANY = new Layer4(-1, 0, Transport.MAX_DETAIL, 0, Transport.MAX_DETAIL);

    boolean anyDetail() {
      return protocol < 0 || (first == 0 && last == Transport.maxDetail(protocol));
    }

    boolean anySource() {
      return firstSource == 0 && lastSource == Transport.MAX_DETAIL;
    }
  }

  private static final JsonNodeFactory JSON = JsonNodeFactory.instance;

  private final ResolvedMatch match;
  private final List<String> zoneNames;
  private final List<String> fromZones; // one empty name for any
  private final List<String> toZones;
  private final List<Layer4> services;

  /**
   * @param rule asks for no application, so its services are the same for all
   */
  AclMatches(Rule rule, Resolution resolution) {
    match = resolution.match(rule);
    zoneNames = resolution.zoneNames();
    fromZones = zones(!rule.fromZones().isAny(), match.fromZones());
    toZones = zones(!rule.toZones().isAny(), match.toZones());
    this.services = new ArrayList<>();
    match.services().forEach(traffic -> services.addAll(services(traffic.services())));
  }

  /** Why the standard cannot say this, if it cannot. */
  Optional<String> obstacle() {
    for (Layer4 service : services) {
      if (service.protocol == Transport.SCTP && !(service.anyDetail() && service.anySource())) {
        return Optional.of("the standard has no ports of SCTP");
      }
    }
    long entries = (long) fromZones.size() * toZones.size() * services.size() * pairs().size();
    return entries > AclWriter.MAX_ENTRIES
        ? Optional.of("it would need " + entries + " entries, more than " + AclWriter.MAX_ENTRIES)
        : Optional.empty();
  }

  /** The matches of all entries; none if the rule matches nothing. */
  List<ObjectNode> write() {
    List<ObjectNode> out = new ArrayList<>();
    for (String fromZone : fromZones) {
      for (String toZone : toZones) {
        for (Pair pair : pairs()) {
          for (Layer4 service : services) {
            out.add(entry(fromZone, toZone, pair, service));
          }
        }
      }
    }
    return out;
  }

  /** Networks of both ends; a null network is any, a null family is both. */
  private record Pair(Family family, AddressRange from, AddressRange to) {}

  private List<Pair> pairs() {
    boolean anyFrom = match.from().equals(AddressSet.ALL);
    boolean anyTo = match.to().equals(AddressSet.ALL);
    boolean familyNeeded =
        services.stream().anyMatch(s -> s.protocol >= 0 && !hasContainer(s.protocol));
    if (anyFrom && anyTo && !familyNeeded) {
      return List.of(new Pair(null, null, null));
    }
    List<Pair> out = new ArrayList<>();
    for (Family family : Family.values()) {
      for (AddressRange from : prefixes(match.from(), family)) {
        for (AddressRange to : prefixes(match.to(), family)) {
          out.add(new Pair(family, from, to));
        }
      }
    }
    return out;
  }

  private static boolean hasContainer(int protocol) {
    return protocol == Transport.TCP || protocol == Transport.UDP;
  }

  private static List<AddressRange> prefixes(AddressSet set, Family family) {
    return set.ranges().stream()
        .filter(range -> range.family() == family)
        .flatMap(range -> range.prefixes().stream())
        .toList();
  }

  /**
   * @param asked whether the rule asks for zones, be it for all of them: a gateway may have other
   *     interfaces
   */
  private List<String> zones(boolean asked, IntSet zones) {
    List<String> out = new ArrayList<>();
    if (asked) {
      zones.forEach(zone -> out.add(zoneNames.get(zone)));
    } else {
      out.add("");
    }
    return out;
  }

  private static List<Layer4> services(TransportSet set) {
    List<Layer4> out = new ArrayList<>();
    for (TransportSet.Rectangle part : set.parts()) {
      IntSet sources = part.sourcePorts();
      for (int s = 0; s < sources.intervals(); s++) {
        boolean all =
            part.services().equals(Transport.ANY_SERVICE) && sources.equals(Transport.ANY_PORT);
        if (all) {
          out.add(Layer4.ANY);
          continue;
        }
        for (int i = 0; i < part.services().intervals(); i++) {
          addServices(
              part.services().first(i),
              part.services().last(i),
              sources.first(s),
              sources.last(s),
              sources.size() <= Transport.MAX_DETAIL,
              out);
        }
      }
    }
    return out;
  }

  /** An interval of positions never spans two protocols that have details: see Transport. */
  private static void addServices(
      int first, int last, int firstSource, int lastSource, boolean sourced, List<Layer4> out) {
    for (int protocol = Transport.protocol(first);
        protocol <= Transport.protocol(last);
        protocol++) {
      int low = protocol == Transport.protocol(first) ? Transport.detail(first) : 0;
      int high =
          protocol == Transport.protocol(last)
              ? Transport.detail(last)
              : Transport.maxDetail(protocol);
      boolean ports = Transport.hasPorts(protocol);
      if (!ports && sourced && firstSource > 0) {
        continue; // Source ports mean nothing here; the interval from 0 on has written it.
      }
      boolean whole = low == 0 && high == Transport.maxDetail(protocol);
      if (Transport.hasTypes(protocol) && !whole) {
        addTypes(protocol, low, high, out);
      } else if (ports) {
        out.add(new Layer4(protocol, low, high, firstSource, lastSource));
      } else {
        out.add(new Layer4(protocol, low, high, 0, Transport.MAX_DETAIL));
      }
    }
  }

  /** Whole types where possible, single codes else. */
  private static void addTypes(int protocol, int low, int high, List<Layer4> out) {
    int at = low;
    while (at <= high) {
      boolean wholeType = (at & 255) == 0 && at + 255 <= high;
      int end = wholeType ? at + 255 : at;
      out.add(new Layer4(protocol, at, end, 0, Transport.MAX_DETAIL));
      at = end + 1;
    }
  }

  private static ObjectNode entry(String fromZone, String toZone, Pair pair, Layer4 service) {
    ObjectNode out = JSON.objectNode();
    if (!fromZone.isEmpty()) {
      out.put("ingress-interface", fromZone);
    }
    if (!toZone.isEmpty()) {
      out.put("egress-interface", toZone);
    }
    if (pair.family != null) {
      ObjectNode ip = out.putObject(pair.family == Family.IPV4 ? "ipv4" : "ipv6");
      network(ip, "source", pair.from);
      network(ip, "destination", pair.to);
      if (service.protocol >= 0 && !hasContainer(service.protocol)) {
        ip.put("protocol", service.protocol);
      }
    }
    if (service.protocol >= 0 && hasContainer(service.protocol)) {
      ObjectNode l4 = out.putObject(service.protocol == Transport.TCP ? "tcp" : "udp");
      ports(l4, "source-port", service.firstSource, service.lastSource);
      ports(l4, "destination-port", service.first, service.last);
    } else if (Transport.hasTypes(service.protocol) && !service.anyDetail()) {
      ObjectNode icmp = out.putObject("icmp");
      icmp.put("type", service.first >> 8);
      if (service.first == service.last) {
        icmp.put("code", service.first & 255);
      }
    }
    return out;
  }

  private static void network(ObjectNode ip, String end, AddressRange range) {
    if (!range.equals(AddressRange.all(range.family()))) {
      String word = range.family() == Family.IPV4 ? "ipv4" : "ipv6";
      ip.put(end + "-" + word + "-network", range.first() + "/" + range.prefixLength());
    }
  }

  private static void ports(ObjectNode l4, String member, int first, int last) {
    if (first == 0 && last == Transport.MAX_DETAIL) {
      return;
    }
    ObjectNode ports = l4.putObject(member);
    if (first == last) {
      ports.put("operator", "eq").put("port", first);
    } else if (first == 0) {
      ports.put("operator", "lte").put("port", last);
    } else if (last == Transport.MAX_DETAIL) {
      ports.put("operator", "gte").put("port", first);
    } else {
      ports.put("lower-port", first).put("upper-port", last);
    }
  }
}
