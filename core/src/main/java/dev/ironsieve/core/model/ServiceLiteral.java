package dev.ironsieve.core.model;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.core.sets.TransportSet;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A service written in a criterion, such as tcp/443. Its text is one of
 *
 * <pre>
 *   tcp  udp  sctp  icmp  icmp6          the whole protocol
 *   tcp/443   udp/5000-5100              destination port or ports
 *   tcp/443 from 1024-65535              and source port or ports
 *   tcp from 1024-65535
 *   icmp/8   icmp/3/1                    type, or type and code
 *   ip/47                                another IP protocol by its number
 * </pre>
 *
 * @param protocol IP protocol number, 0 to 255
 * @param firstDetail lowest destination port, or type * 256 + code, included
 * @param lastDetail highest, included
 * @param firstSource lowest source port, included
 * @param lastSource highest, included
 */
public record ServiceLiteral(
    int protocol, int firstDetail, int lastDetail, int firstSource, int lastSource)
    implements ServiceItem {
  private static final Map<String, Integer> PROTOCOLS =
      Map.of(
          "tcp", Transport.TCP,
          "udp", Transport.UDP,
          "sctp", Transport.SCTP,
          "icmp", Transport.ICMP,
          "icmp6", Transport.ICMPV6);
  private static final Pattern SHAPE =
      Pattern.compile("(tcp|udp|sctp|icmp6|icmp|ip)(?:/([^ ]*))?(?: from (.*))?");

  public ServiceLiteral {
    int max = protocol < 0 || protocol > 255 ? -1 : Transport.maxDetail(protocol);
    boolean fits =
        0 <= firstDetail
            && firstDetail <= lastDetail
            && lastDetail <= max
            && 0 <= firstSource
            && firstSource <= lastSource
            && lastSource <= Transport.MAX_DETAIL;
    boolean sourced = firstSource != 0 || lastSource != Transport.MAX_DETAIL;
    if (!fits || (sourced && !Transport.hasPorts(protocol))) {
      throw new IllegalArgumentException(
          "protocol %d, detail %d..%d, source %d..%d"
              .formatted(protocol, firstDetail, lastDetail, firstSource, lastSource));
    }
  }

  public static ServiceLiteral whole(int protocol) {
    return new ServiceLiteral(protocol, 0, Transport.maxDetail(protocol), 0, Transport.MAX_DETAIL);
  }

  /** Destination ports {@code first} to {@code last} of a protocol that has ports. */
  public static ServiceLiteral ports(int protocol, int first, int last) {
    return new ServiceLiteral(protocol, first, last, 0, Transport.MAX_DETAIL);
  }

  public static boolean looksLikeOne(String text) {
    return text.indexOf('/') >= 0 || SHAPE.matcher(text).matches();
  }

  /**
   * Reads the text form.
   *
   * @throws InvalidText with the place of the first fault
   */
  public static ServiceLiteral parse(String text) {
    Matcher shape = SHAPE.matcher(text);
    if (!shape.matches()) {
      throw new InvalidText(
          0, "tcp, udp, sctp, icmp, icmp6 or ip/NUMBER, as in tcp/443 or icmp/8", text);
    }
    String detail = shape.group(2);
    if (shape.group(1).equals("ip")) {
      int number = parseNumber(detail == null ? "" : detail, 3, 255, "an IP protocol number");
      if (shape.group(3) != null) {
        throw new InvalidText(shape.start(3), "source ports with tcp, udp or sctp only", text);
      }
      return whole(number);
    }
    int protocol = PROTOCOLS.get(shape.group(1));
    int[] details = {0, Transport.MAX_DETAIL};
    if (detail != null) {
      details =
          Transport.hasTypes(protocol)
              ? parseTypes(detail, shape.start(2))
              : parsePorts(detail, shape.start(2));
    }
    int[] sources = {0, Transport.MAX_DETAIL};
    if (shape.group(3) != null) {
      if (!Transport.hasPorts(protocol)) {
        throw new InvalidText(shape.start(3), "source ports with tcp, udp or sctp only", text);
      }
      sources = parsePorts(shape.group(3), shape.start(3));
    }
    return new ServiceLiteral(protocol, details[0], details[1], sources[0], sources[1]);
  }

  private static int[] parsePorts(String text, int at) {
    int dash = text.indexOf('-');
    int first = parseNumber(dash < 0 ? text : text.substring(0, dash), at, 65535, "a port");
    if (dash < 0) {
      return new int[] {first, first};
    }
    int last = parseNumber(text.substring(dash + 1), at + dash + 1, 65535, "a port");
    if (last < first) {
      throw new InvalidText(at + dash + 1, "a port not below " + first, last + "");
    }
    return new int[] {first, last};
  }

  private static int[] parseTypes(String text, int at) {
    int slash = text.indexOf('/');
    String typeText = slash < 0 ? text : text.substring(0, slash);
    int type = parseNumber(typeText, at, 255, "an ICMP type") << 8;
    if (slash < 0) {
      return new int[] {type, type | 255};
    }
    int code = parseNumber(text.substring(slash + 1), at + slash + 1, 255, "an ICMP code");
    return new int[] {type | code, type | code};
  }

  private static int parseNumber(String text, int at, int most, String what) {
    boolean fits = text.length() <= 5 && text.matches("0|[1-9][0-9]*");
    if (!fits || Integer.parseInt(text) > most) {
      throw new InvalidText(at, what + " from 0 to " + most, text);
    }
    return Integer.parseInt(text);
  }

  /** The connections that this service stands for. */
  public TransportSet set() {
    return TransportSet.of(
        IntSet.range(
            Transport.position(protocol, firstDetail), Transport.position(protocol, lastDetail)),
        IntSet.range(firstSource, lastSource));
  }

  /** The texts of the fewest literals that together are a set of positions of {@link Transport}. */
  public static List<String> covering(IntSet positions) {
    List<String> out = new ArrayList<>();
    for (int i = 0; i < positions.intervals(); i++) {
      int first = positions.first(i);
      while (first <= positions.last(i)) {
        int protocol = Transport.protocol(first);
        int end = Transport.position(protocol, Transport.maxDetail(protocol));
        int last = Math.min(positions.last(i), end);
        out.add(text(protocol, Transport.detail(first), Transport.detail(last)));
        first = last + 1;
      }
    }
    return out;
  }

  /** The text of a literal; ICMP types and codes that are no whole type are written as a range. */
  private static String text(int protocol, int first, int last) {
    boolean type = first == last || ((first & 255) == 0 && last == (first | 255));
    boolean all = first == 0 && last == Transport.maxDetail(protocol);
    if (Transport.hasTypes(protocol) && !type && !all) {
      return "%s/%d/%d-%d/%d"
          .formatted(protocolName(protocol), first >> 8, first & 255, last >> 8, last & 255);
    }
    return new ServiceLiteral(protocol, first, last, 0, Transport.MAX_DETAIL).toString();
  }

  /** The shortest text that {@link #parse} reads back. */
  @Override
  public String toString() {
    StringBuilder out = new StringBuilder(protocolName(protocol));
    boolean all = firstDetail == 0 && lastDetail == Transport.maxDetail(protocol);
    if (!all && Transport.hasPorts(protocol)) {
      out.append('/').append(span(firstDetail, lastDetail));
    } else if (!all) {
      out.append('/').append(firstDetail >> 8);
      out.append(firstDetail == lastDetail ? "/" + (firstDetail & 255) : "");
    }
    if (firstSource != 0 || lastSource != Transport.MAX_DETAIL) {
      out.append(" from ").append(span(firstSource, lastSource));
    }
    return out.toString();
  }

  private static String span(int first, int last) {
    return first == last ? first + "" : first + "-" + last;
  }

  /** {@code tcp}, {@code udp}, {@code sctp}, {@code icmp}, {@code icmp6} or {@code ip/NUMBER}. */
  public static String protocolName(int protocol) {
    return PROTOCOLS.entrySet().stream()
        .filter(entry -> entry.getValue() == protocol)
        .map(Map.Entry::getKey)
        .findAny()
        .orElse("ip/" + protocol);
  }

  @Override
  public boolean equals(Object o) {
    return o instanceof ServiceLiteral other
        && protocol == other.protocol
        && firstDetail == other.firstDetail
        && lastDetail == other.lastDetail
        && firstSource == other.firstSource
        && lastSource == other.lastSource;
  }

  @Override
  public int hashCode() {
    int details = 31 * (31 * protocol + firstDetail) + lastDetail;
    return 31 * (31 * details + firstSource) + lastSource;
  }
}
