package dev.ironsieve.core.model;

import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.Transport;
import java.util.Collections;
import java.util.EnumMap;
import java.util.Map;

/**
 * One connection, the point that a rulebase decides on. What is unknown is no member of anything
 * narrower than everything.
 *
 * @param from the end that opens the connection
 * @param to the end that is connected to
 * @param protocol IP protocol number, 0 to 255, or {@link #UNKNOWN}
 * @param detail destination port, or ICMP type * 256 + code, or {@link #UNKNOWN}; 0 for protocols
 *     that have neither
 * @param sourcePort 0 to 65535, or {@link #UNKNOWN}
 * @param terms names of values of the rulebase's vocabularies; a missing coordinate is unknown
 */
public record Connection(
    Endpoint from,
    Endpoint to,
    int protocol,
    int detail,
    int sourcePort,
    Map<Coordinate, String> terms) {
  public static final int UNKNOWN = -1;

  /** A connection of which nothing but ends and service is known. */
  public Connection(Endpoint from, Endpoint to, int protocol, int detail, int sourcePort) {
    this(from, to, protocol, detail, sourcePort, Map.of());
  }

  /**
   * One end of a connection.
   *
   * @param zone the zone's name, or null for unknown
   * @param address or null for unknown
   */
  public record Endpoint(String zone, Address address) {
    public static final Endpoint NOT_KNOWN = new Endpoint(null, null);
  }

  /** The same with other terms. */
  public Connection saying(Map<Coordinate, String> terms) {
    return new Connection(from, to, protocol, detail, sourcePort, terms);
  }

  public Connection {
    terms = terms.isEmpty() ? Map.of() : Collections.unmodifiableMap(new EnumMap<>(terms));
    boolean known = protocol >= 0 && protocol <= Transport.MAX_PROTOCOL;
    int max = known ? Transport.maxDetail(protocol) : UNKNOWN;
    boolean fits =
        (known || protocol == UNKNOWN)
            && detail >= UNKNOWN
            && detail <= max
            && sourcePort >= UNKNOWN
            && sourcePort <= Transport.MAX_DETAIL;
    if (!fits) {
      throw new IllegalArgumentException(
          "protocol %d, detail %d, source port %d".formatted(protocol, detail, sourcePort));
    }
  }
}
