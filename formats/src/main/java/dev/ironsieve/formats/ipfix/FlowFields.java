package dev.ironsieve.formats.ipfix;

import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.formats.ipfix.FlowRecord.Event;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/** The values of one data record, as they are read. */
final class FlowFields implements Template.Values {
  private static final int V4_BYTES = 4;
  private static final int V6_BYTES = 16;
  private static final long MOST_SECONDS = 0xffff_ffffL; // of a dateTimeSeconds

  private final Map<Integer, Long> numbers = new HashMap<>(); // by information element
  private Address from;
  private Address to;
  private String person = "";
  private String application = "";

  @Override
  public void take(Template.Field field, ByteBuffer value) {
    if (field.foreign()) {
      return;
    }
    switch (field.id()) {
      case InformationElement.SOURCE_IPV4_ADDRESS, InformationElement.SOURCE_IPV6_ADDRESS ->
          from = address(value, from);
      case InformationElement.DESTINATION_IPV4_ADDRESS,
          InformationElement.DESTINATION_IPV6_ADDRESS ->
          to = address(value, to);
      case InformationElement.USER_NAME -> person = text(value);
      case InformationElement.APPLICATION_NAME -> application = text(value);
      default -> {
        if (value.remaining() <= Long.BYTES) {
          numbers.put(field.id(), number(value)); // short forms too: RFC 7011, section 6.2
        }
      }
    }
  }

  private static Address address(ByteBuffer value, Address otherwise) {
    return switch (value.remaining()) {
      case V4_BYTES -> new Address(Family.IPV4, 0, Integer.toUnsignedLong(value.getInt()));
      case V6_BYTES -> new Address(Family.IPV6, value.getLong(), value.getLong());
      default -> otherwise;
    };
  }

  private static String text(ByteBuffer value) {
    return StandardCharsets.UTF_8.decode(value).toString();
  }

  private static long number(ByteBuffer value) {
    long out = 0;
    while (value.hasRemaining()) {
      out = out << Byte.SIZE | Byte.toUnsignedLong(value.get());
    }
    return out;
  }

  /**
   * The flow, if the record has both addresses of one family.
   *
   * @param sentAt the time of a flow that has none
   */
  Optional<FlowRecord> flow(Instant sentAt) {
    if (from == null || to == null || from.family() != to.family()) {
      return Optional.empty();
    }
    Instant end =
        time(
            InformationElement.FLOW_END_MILLISECONDS,
            InformationElement.FLOW_END_SECONDS,
            InformationElement.FLOW_END_SYS_UP_TIME,
            sentAt);
    Instant start =
        time(
            InformationElement.FLOW_START_MILLISECONDS,
            InformationElement.FLOW_START_SECONDS,
            InformationElement.FLOW_START_SYS_UP_TIME,
            end);
    int protocol = bounded(InformationElement.PROTOCOL_IDENTIFIER, Transport.MAX_PROTOCOL);
    boolean ports = Transport.hasPorts(protocol);
    int icmp =
        from.family() == Family.IPV4
            ? InformationElement.ICMP_TYPE_CODE_IPV4
            : InformationElement.ICMP_TYPE_CODE_IPV6;
    return Optional.of(
        new FlowRecord(
            start,
            end,
            from,
            to,
            protocol,
            ports ? bounded(InformationElement.SOURCE_TRANSPORT_PORT, Transport.MAX_DETAIL) : 0,
            ports
                ? bounded(InformationElement.DESTINATION_TRANSPORT_PORT, Transport.MAX_DETAIL)
                : 0,
            bounded(icmp, Transport.maxDetail(protocol)),
            count(InformationElement.PACKET_DELTA_COUNT, InformationElement.PACKET_TOTAL_COUNT),
            count(InformationElement.OCTET_DELTA_COUNT, InformationElement.OCTET_TOTAL_COUNT),
            Event.of(numbers.getOrDefault(InformationElement.FIREWALL_EVENT, 0L)),
            person,
            application));
  }

  private Instant time(int milliseconds, int seconds, int upTime, Instant otherwise) {
    Long atMillis = numbers.get(milliseconds);
    Long atSeconds = numbers.get(seconds);
    Long up = numbers.get(upTime);
    Long began = numbers.get(InformationElement.SYSTEM_INIT_TIME_MILLISECONDS);
    if (atMillis == null && atSeconds != null && atSeconds <= MOST_SECONDS) {
      return Instant.ofEpochSecond(atSeconds);
    }
    if (atMillis == null && up != null && began != null) {
      atMillis = began + up;
    }
    boolean plausible = atMillis != null && atMillis >= 0 && atMillis / 1000 <= MOST_SECONDS;
    return plausible ? Instant.ofEpochMilli(atMillis) : otherwise;
  }

  private int bounded(int element, int most) {
    long value = numbers.getOrDefault(element, 0L);
    return value >= 0 && value <= most ? (int) value : 0;
  }

  private long count(int delta, int total) {
    Long counted = numbers.containsKey(delta) ? numbers.get(delta) : numbers.get(total);
    return counted == null ? 0 : Math.max(0, counted);
  }
}
