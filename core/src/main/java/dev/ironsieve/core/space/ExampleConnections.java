package dev.ironsieve.core.space;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.Transport;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;

/** Chooses example connections for points of a space. */
final class ExampleConnections {
  /** Familiar services, preferred in examples. */
  static final int[] KNOWN_SERVICES = {
    Transport.position(Transport.TCP, 443),
    Transport.position(Transport.TCP, 80),
    Transport.position(Transport.TCP, 22),
    Transport.position(Transport.UDP, 53),
    Transport.position(Transport.TCP, 8443),
    Transport.position(Transport.UDP, 443),
    Transport.position(Transport.ICMP, 8 << 8),
    Transport.position(Transport.ICMPV6, 128 << 8),
  };

  static final int[] KNOWN_SOURCE_PORTS = {50000, 40000, 1024, 1023};

  /** Addresses from the documentation ranges of RFC 5737 and RFC 3849, preferred in examples. */
  static final List<Address> KNOWN_ADDRESSES =
      List.of(
          Address.parse("198.51.100.20"),
          Address.parse("203.0.113.30"),
          Address.parse("192.0.2.40"),
          Address.parse("2001:db8:ffff::20"));

  private final Space space;

  ExampleConnections(Space space) {
    this.space = space;
  }

  /** A connection at a point, with familiar values where there is a choice. */
  Connection connection(int[] point) {
    return connection(point, Connection.UNKNOWN);
  }

  /**
   * The same with a protocol that is known already.
   *
   * @param known the protocol, or {@link Connection#UNKNOWN}
   */
  Connection connection(int[] point, int known) {
    int position =
        known < 0
            ? space.services.value(point[Space.SERVICE], KNOWN_SERVICES)
            : space.services.valueWithin(
                point[Space.SERVICE],
                Transport.position(known, 0),
                Transport.position(known, Transport.maxDetail(known)),
                KNOWN_SERVICES);
    int protocol = Transport.protocol(position);
    int sourcePort =
        Transport.hasPorts(protocol)
            ? space.sourcePorts.value(point[Space.SOURCE_PORT], KNOWN_SOURCE_PORTS)
            : Connection.UNKNOWN;
    Map<Coordinate, String> named = new EnumMap<>(Coordinate.class);
    for (int i = 0; i < space.terms.length; i++) {
      if (space.asked[i]) {
        named.put(
            space.coordinates[i],
            space
                .resolution
                .vocabularies()
                .get(i)
                .values()
                .get(space.resolution.counting(i, space.terms[i].value(point[Space.TERMS + i]))));
      }
    }
    return new Connection(
        space.from.value(point[Space.FROM], KNOWN_ADDRESSES),
        space.to.value(point[Space.TO], KNOWN_ADDRESSES),
        protocol,
        Transport.detail(position),
        sourcePort,
        named);
  }
}
