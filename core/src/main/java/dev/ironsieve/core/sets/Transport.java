package dev.ironsieve.core.sets;

/**
 * The line on which IP protocols and what they carry are laid out, so that a set of services is a
 * set of integers:
 *
 * <pre>
 *   position = protocol * 65536 + detail
 *   detail   = destination port (TCP, UDP, SCTP), type * 256 + code (ICMP, ICMPv6), else 0
 * </pre>
 *
 * Protocol numbers are those of the IANA registry "Protocol Numbers", 0 to 255.
 */
public final class Transport {
  public static final int ICMP = 1;
  public static final int TCP = 6;
  public static final int UDP = 17;
  public static final int ICMPV6 = 58;
  public static final int SCTP = 132;

  /** Highest port, and highest detail. */
  public static final int MAX_DETAIL = 65535;

  public static final int MAX_PROTOCOL = 255;

  /** Every source port, 0 to 65535. */
  public static final IntSet ANY_PORT = IntSet.range(0, MAX_DETAIL);

  /** Every position that a connection can have. */
  public static final IntSet ANY_SERVICE = everyService();

  /** Every position of a protocol that has source ports. */
  public static final IntSet WITH_PORTS = whole(TCP).union(whole(UDP)).union(whole(SCTP));

  private Transport() {}

  public static boolean hasPorts(int protocol) {
    return protocol == TCP || protocol == UDP || protocol == SCTP;
  }

  public static boolean hasTypes(int protocol) {
    return protocol == ICMP || protocol == ICMPV6;
  }

  /** Highest detail of {@code protocol}. */
  public static int maxDetail(int protocol) {
    return hasPorts(protocol) || hasTypes(protocol) ? MAX_DETAIL : 0;
  }

  /** Position of a protocol, 0 to 255, with a detail, 0 to {@link #maxDetail}. */
  public static int position(int protocol, int detail) {
    if (protocol < 0 || protocol > MAX_PROTOCOL || detail < 0 || detail > maxDetail(protocol)) {
      throw new IllegalArgumentException("protocol " + protocol + " with detail " + detail);
    }
    return protocol << 16 | detail;
  }

  public static int protocol(int position) {
    return position >>> 16;
  }

  public static int detail(int position) {
    return position & 0xffff;
  }

  /** All positions of one protocol. */
  public static IntSet whole(int protocol) {
    return IntSet.range(position(protocol, 0), position(protocol, maxDetail(protocol)));
  }

  private static IntSet everyService() {
    IntSet.Builder out = new IntSet.Builder();
    for (int protocol = 0; protocol <= MAX_PROTOCOL; protocol++) {
      out.addInOrder(position(protocol, 0), position(protocol, maxDetail(protocol)));
    }
    return out.build();
  }
}
