package dev.ironsieve.formats.ipfix;

import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.formats.ipfix.Template.Field;
import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;

/**
 * Writes flows as IPFIX messages for one transport session (RFC 7011, sections 3 and 7), with a
 * template for each address family. For one thread.
 *
 * <pre>
 *   message   header | template set | data set | data set …
 *   header    version 10, length, time of export, sequence number, observation domain
 *   set       id, length, records
 * </pre>
 */
public final class IpfixWriter {
  /** Most bytes of a message, so that it fits into one packet of most networks. */
  public static final int MAX_BYTES = 1_400;

  private static final int VERSION = 10;
  private static final int HEADER = 16;
  private static final int SET_HEADER = 4;
  private static final int TEMPLATE_SET = 2;
  private static final int MOST_TEXT = 200; // bytes; below 255, so that a length takes one byte

  private static final List<Field> COMMON =
      List.of(
          new Field(InformationElement.FLOW_START_MILLISECONDS, 8),
          new Field(InformationElement.FLOW_END_MILLISECONDS, 8),
          new Field(InformationElement.PROTOCOL_IDENTIFIER, 1),
          new Field(InformationElement.SOURCE_TRANSPORT_PORT, 2),
          new Field(InformationElement.DESTINATION_TRANSPORT_PORT, 2),
          new Field(InformationElement.PACKET_DELTA_COUNT, 8),
          new Field(InformationElement.OCTET_DELTA_COUNT, 8),
          new Field(InformationElement.FIREWALL_EVENT, 1),
          new Field(InformationElement.USER_NAME, Template.VARIABLE),
          new Field(InformationElement.APPLICATION_NAME, Template.VARIABLE));

  /** A template: the addresses and the ICMP type of one family, then what both have. */
  private enum Layout {
    V4(
        256,
        new Field(InformationElement.SOURCE_IPV4_ADDRESS, 4),
        new Field(InformationElement.DESTINATION_IPV4_ADDRESS, 4),
        new Field(InformationElement.ICMP_TYPE_CODE_IPV4, 2)),
    V6(
        257,
        new Field(InformationElement.SOURCE_IPV6_ADDRESS, 16),
        new Field(InformationElement.DESTINATION_IPV6_ADDRESS, 16),
        new Field(InformationElement.ICMP_TYPE_CODE_IPV6, 2));

    final int id;
    final List<Field> fields;

    Layout(int id, Field... own) {
      this.id = id;
      List<Field> all = new ArrayList<>(List.of(own));
      all.addAll(COMMON);
      fields = List.copyOf(all);
    }

    static Layout of(FlowRecord flow) {
      return flow.from().family() == Family.IPV4 ? V4 : V6;
    }
  }

  private final int domain;
  private long sequence; // data records before the next message

  /**
   * @param domain tells the exporters of one address apart (observation domain id)
   */
  public IpfixWriter(int domain) {
    this.domain = domain;
  }

  /**
   * The messages for some flows, at least one if the templates are wanted.
   *
   * @param templates whether the first message has the templates, without which a collector cannot
   *     read the flows; over UDP they have to be sent again and again (RFC 7011, section 8.4)
   */
  public List<byte[]> messages(List<FlowRecord> flows, Instant now, boolean templates) {
    List<byte[]> out = new ArrayList<>();
    ByteBuffer body = ByteBuffer.allocate(MAX_BYTES - HEADER);
    if (templates) {
      writeTemplates(body);
    }
    int records = 0;
    int set = -1; // where the open set begins
    Layout open = null;
    for (FlowRecord flow : flows) {
      byte[] data = data(flow);
      Layout template = Layout.of(flow);
      boolean fits = body.remaining() >= data.length + (template == open ? 0 : SET_HEADER);
      if (!fits) {
        if (open != null) {
          close(body, set);
        }
        out.add(message(body, now, records));
        body.clear();
        records = 0;
        open = null;
      }
      if (template != open) {
        if (open != null) {
          close(body, set);
        }
        set = body.position();
        body.putShort((short) template.id).putShort((short) 0);
        open = template;
      }
      body.put(data);
      records++;
    }
    if (open != null) {
      close(body, set);
    }
    if (body.position() > 0) {
      out.add(message(body, now, records));
    }
    return out;
  }

  /** Notes the length of a set that is written. */
  private static void close(ByteBuffer body, int set) {
    body.putShort(set + 2, (short) (body.position() - set));
  }

  private static void writeTemplates(ByteBuffer body) {
    int set = body.position();
    body.putShort((short) TEMPLATE_SET).putShort((short) 0);
    for (Layout template : Layout.values()) {
      body.putShort((short) template.id).putShort((short) template.fields.size());
      for (Field field : template.fields) {
        body.putShort((short) field.id()).putShort((short) field.length());
      }
    }
    close(body, set);
  }

  private byte[] message(ByteBuffer body, Instant now, int records) {
    int length = HEADER + body.position();
    ByteBuffer out = ByteBuffer.allocate(length);
    out.putShort((short) VERSION)
        .putShort((short) length)
        .putInt((int) now.getEpochSecond())
        .putInt((int) sequence)
        .putInt(domain)
        .put(body.array(), 0, body.position());
    sequence += records;
    return out.array();
  }

  private static byte[] data(FlowRecord flow) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (DataOutputStream out = new DataOutputStream(bytes)) {
      write(out, flow.from());
      write(out, flow.to());
      out.writeShort(flow.icmp());
      out.writeLong(flow.start().toEpochMilli());
      out.writeLong(flow.end().toEpochMilli());
      out.writeByte(flow.protocol());
      out.writeShort(flow.fromPort());
      out.writeShort(flow.toPort());
      out.writeLong(flow.packets());
      out.writeLong(flow.bytes());
      out.writeByte(flow.event().value);
      write(out, flow.person());
      write(out, flow.application());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return bytes.toByteArray();
  }

  private static void write(DataOutputStream out, Address address) throws IOException {
    if (address.family() == Family.IPV4) {
      out.writeInt((int) address.low());
    } else {
      out.writeLong(address.high());
      out.writeLong(address.low());
    }
  }

  /** A text of variable length (RFC 7011, section 7); one that is too long is cut. */
  private static void write(DataOutputStream out, String text) throws IOException {
    String said = text;
    byte[] bytes = said.getBytes(StandardCharsets.UTF_8);
    while (bytes.length > MOST_TEXT) {
      said = said.substring(0, said.offsetByCodePoints(said.length(), -1));
      bytes = said.getBytes(StandardCharsets.UTF_8);
    }
    out.writeByte(bytes.length);
    out.write(bytes);
  }
}
