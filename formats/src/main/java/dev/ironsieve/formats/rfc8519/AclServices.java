package dev.ironsieve.formats.rfc8519;

import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.formats.InvalidDocument;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * The protocol and the layer 4 matches of one entry as a criterion about services.
 *
 * @param family of the entry's IP match, or null if it has none
 * @param protocolPlace the protocol number of its IP match
 */
record AclServices(Place matches, Family family, Optional<Place> protocolPlace) {

  private record Ports(int first, int last, boolean except) {
    static final Ports ANY = new Ports(0, Transport.MAX_DETAIL, false);
  }

  Criterion<ServiceItem> read() {
    Optional<Place> tcp = matches.member("tcp");
    Optional<Place> udp = matches.member("udp");
    Optional<Place> icmp = matches.member("icmp");
    if (List.of(tcp, udp, icmp).stream().filter(Optional::isPresent).count() > 1) {
      throw new InvalidDocument(matches.path(), "one of tcp, udp and icmp", "several");
    }
    if (tcp.isPresent()) {
      return withPorts(tcp.get(), Transport.TCP);
    }
    if (udp.isPresent()) {
      return withPorts(udp.get(), Transport.UDP);
    }
    if (icmp.isPresent()) {
      return withTypes(icmp.get());
    }
    return protocolPlace
        .map(place -> Criterion.<ServiceItem>of(ServiceLiteral.whole(place.number(255))))
        .orElse(Criterion.any());
  }

  private void requireProtocol(int... allowed) {
    protocolPlace.ifPresent(
        place -> {
          int number = place.number(255);
          for (int one : allowed) {
            if (one == number) {
              return;
            }
          }
          throw new InvalidDocument(
              place.path(), "the protocol of the layer 4 match, " + allowed[0], number + "");
        });
  }

  private Criterion<ServiceItem> withPorts(Place l4, int protocol) {
    requireProtocol(protocol);
    l4.object(Set.of("source-port", "destination-port"));
    Ports source = l4.member("source-port").map(AclServices::ports).orElse(Ports.ANY);
    Ports destination = l4.member("destination-port").map(AclServices::ports).orElse(Ports.ANY);
    Ports sourceIn = source.except ? Ports.ANY : source;
    Ports destinationIn = destination.except ? Ports.ANY : destination;
    List<ServiceItem> except = new ArrayList<>();
    if (source.except) {
      except.add(new ServiceLiteral(protocol, 0, Transport.MAX_DETAIL, source.first, source.last));
    }
    if (destination.except) {
      except.add(ServiceLiteral.ports(protocol, destination.first, destination.last));
    }
    ServiceItem in =
        new ServiceLiteral(
            protocol, destinationIn.first, destinationIn.last, sourceIn.first, sourceIn.last);
    return new Criterion<>(List.of(in), except);
  }

  /** The grouping port-range-or-operator of RFC 8519, section 4.2. */
  private static Ports ports(Place place) {
    place.object(Set.of("lower-port", "upper-port", "operator", "port"));
    if (place.member("lower-port").isPresent() || place.member("upper-port").isPresent()) {
      if (place.member("port").isPresent() || place.member("operator").isPresent()) {
        throw new InvalidDocument(
            place.path(), "either a range or an operator with a port", "both");
      }
      int lower = place.required("lower-port").number(Transport.MAX_DETAIL);
      Place upperPlace = place.required("upper-port");
      int upper = upperPlace.number(Transport.MAX_DETAIL);
      if (upper < lower) {
        throw new InvalidDocument(upperPlace.path(), "a port not below " + lower, upper + "");
      }
      return new Ports(lower, upper, false);
    }
    int port = place.required("port").number(Transport.MAX_DETAIL);
    String operator = place.member("operator").map(Place::identity).orElse("eq");
    return switch (operator) {
      case "eq" -> new Ports(port, port, false);
      case "neq" -> new Ports(port, port, true);
      case "lte" -> new Ports(0, port, false);
      case "gte" -> new Ports(port, Transport.MAX_DETAIL, false);
      default ->
          throw new InvalidDocument(
              place.path() + ".operator", "eq, neq, lte or gte", '"' + operator + '"');
    };
  }

  private Criterion<ServiceItem> withTypes(Place icmp) {
    requireProtocol(Transport.ICMP, Transport.ICMPV6);
    icmp.object(Set.of("type", "code"));
    Optional<Integer> type = icmp.member("type").map(place -> place.number(255));
    Optional<Integer> code = icmp.member("code").map(place -> place.number(255));
    if (type.isEmpty() && code.isPresent()) {
      throw new InvalidDocument(icmp.path(), "a type with the code", "a code alone");
    }
    List<ServiceItem> items = new ArrayList<>();
    for (int protocol : protocols()) {
      if (type.isEmpty()) {
        items.add(ServiceLiteral.whole(protocol));
      } else {
        int first = type.get() << 8 | code.orElse(0);
        int last = type.get() << 8 | code.orElse(255);
        items.add(new ServiceLiteral(protocol, first, last, 0, Transport.MAX_DETAIL));
      }
    }
    return new Criterion<>(items, List.of());
  }

  private int[] protocols() {
    if (protocolPlace.isPresent()) {
      return new int[] {protocolPlace.get().number(255)};
    }
    if (family == null) {
      return new int[] {Transport.ICMP, Transport.ICMPV6};
    }
    return new int[] {family == Family.IPV4 ? Transport.ICMP : Transport.ICMPV6};
  }
}
