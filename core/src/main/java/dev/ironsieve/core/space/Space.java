package dev.ironsieve.core.space;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.core.sets.TransportSet;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * All feasible connections, cut along the rules' criteria. A point is an array with one class for
 * each axis: from, to, service, source port.
 *
 * <p>Both ends of a connection are of one address family, so no box mixes families.
 */
public final class Space {
  private static final int FROM = 0;
  private static final int TO = 1;
  private static final int SERVICE = 2;
  private static final int SOURCE_PORT = 3;

  /** Services that a reader knows, preferred in examples. */
  private static final int[] KNOWN_SERVICES = {
    Transport.position(Transport.TCP, 443),
    Transport.position(Transport.TCP, 80),
    Transport.position(Transport.TCP, 22),
    Transport.position(Transport.UDP, 53),
    Transport.position(Transport.TCP, 8443),
    Transport.position(Transport.UDP, 443),
    Transport.position(Transport.ICMP, 8 << 8),
    Transport.position(Transport.ICMPV6, 128 << 8),
  };

  private static final int[] KNOWN_SOURCE_PORTS = {50000, 40000, 1024, 1023};

  /** Addresses from the documentation ranges of RFC 5737 and RFC 3849, preferred in examples. */
  private static final List<Address> KNOWN_ADDRESSES =
      List.of(
          Address.parse("198.51.100.20"),
          Address.parse("203.0.113.30"),
          Address.parse("192.0.2.40"),
          Address.parse("2001:db8:ffff::20"));

  private final EndpointAxis from;
  private final EndpointAxis to;
  private final NumberAxis services;
  private final NumberAxis sourcePorts;
  private final Axis[] axes;
  private final List<Map<IntSet, Long>> sketches = new ArrayList<>();

  /**
   * @param resolution gives the zones and their networks
   * @param matches what has to be told apart
   */
  public Space(Resolution resolution, List<Match> matches) {
    from = new EndpointAxis(resolution, matches.stream().map(Space::fromSide).toList());
    to = new EndpointAxis(resolution, matches.stream().map(Space::toSide).toList());
    List<TransportSet.Part> parts =
        matches.stream().flatMap(match -> match.services().parts().stream()).distinct().toList();
    services =
        new NumberAxis(
            Transport.ANY_SERVICE, parts.stream().map(TransportSet.Part::services).toList());
    sourcePorts =
        new NumberAxis(
            Transport.ANY_PORT, parts.stream().map(TransportSet.Part::sourcePorts).toList());
    axes = new Axis[] {from, to, services, sourcePorts};
    for (int i = 0; i < axes.length; i++) {
      sketches.add(new HashMap<>());
    }
  }

  private static EndpointAxis.Side fromSide(Match match) {
    return new EndpointAxis.Side(match.fromZones(), match.from());
  }

  private static EndpointAxis.Side toSide(Match match) {
    return new EndpointAxis.Side(match.toZones(), match.to());
  }

  /** Number of axes. */
  public int axes() {
    return axes.length;
  }

  /** Number of classes on axis {@code axis}. */
  public int classes(int axis) {
    return axes[axis].classes();
  }

  /** Classes on {@code axis} whose values a reader knows, the best known first. */
  public int[] familiarClasses(int axis) {
    return switch (axis) {
      case SERVICE -> services.classesOf(KNOWN_SERVICES);
      case SOURCE_PORT -> sourcePorts.classesOf(KNOWN_SOURCE_PORTS);
      default -> new int[0];
    };
  }

  /**
   * The feasible connections of a match, which must be one that this space was built for, as boxes;
   * none if nothing feasible matches.
   */
  public List<Box> region(Match match) {
    List<Box> out = new ArrayList<>();
    for (Family family : Family.values()) {
      IntSet fromClasses = from.classes(fromSide(match), family);
      IntSet toClasses = to.classes(toSide(match), family);
      if (fromClasses.isEmpty() || toClasses.isEmpty()) {
        continue;
      }
      for (TransportSet.Part part : match.services().parts()) {
        IntSet[] sides = {
          fromClasses,
          toClasses,
          services.classes(part.services()),
          sourcePorts.classes(part.sourcePorts())
        };
        long[] sketch = new long[sides.length];
        for (int axis = 0; axis < sides.length; axis++) {
          sketch[axis] = sketch(axis, sides[axis]);
        }
        out.add(new Box(sides, sketch));
      }
    }
    return List.copyOf(out);
  }

  private long sketch(int axis, IntSet side) {
    return sketches
        .get(axis)
        .computeIfAbsent(side, s -> Box.sketch(s, Math.max(1, axes[axis].classes())));
  }

  /** A connection at {@code point}, with values that a reader will know where there is a choice. */
  public Connection connection(int[] point) {
    int position = services.value(point[SERVICE], KNOWN_SERVICES);
    int protocol = Transport.protocol(position);
    int sourcePort =
        Transport.hasPorts(protocol)
            ? sourcePorts.value(point[SOURCE_PORT], KNOWN_SOURCE_PORTS)
            : Connection.UNKNOWN;
    return new Connection(
        from.value(point[FROM], KNOWN_ADDRESSES),
        to.value(point[TO], KNOWN_ADDRESSES),
        protocol,
        Transport.detail(position),
        sourcePort);
  }
}
