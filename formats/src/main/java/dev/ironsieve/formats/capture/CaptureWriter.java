package dev.ironsieve.formats.capture;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.List;

/** Writes captures of made-up packets on raw IP links (type 101), for tests and benchmarks. */
public final class CaptureWriter {
  public static final int SYN = 2;
  public static final int ACK = 16;
  public static final int FIN = 1;

  private CaptureWriter() {}

  public static byte[] pcap(ByteOrder order, List<byte[]> packets) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    out.writeBytes(head(order));
    for (byte[] packet : packets) {
      out.writeBytes(head(order, packet.length));
      out.writeBytes(packet);
    }
    return out.toByteArray();
  }

  /** The header of a pcap file. */
  public static byte[] head(ByteOrder order) {
    return ByteBuffer.allocate(24)
        .order(order)
        .putInt(0xa1b2c3d4)
        .putShort((short) 2)
        .putShort((short) 4)
        .putInt(0)
        .putInt(0)
        .putInt(65535)
        .putInt(101)
        .array();
  }

  /** The header of a packet in a pcap file. */
  public static byte[] head(ByteOrder order, int length) {
    return ByteBuffer.allocate(16)
        .order(order)
        .putInt(1_795_000_000)
        .putInt(7)
        .putInt(length)
        .putInt(length)
        .array();
  }

  /** Two interfaces, the second raw IP; every other packet as a simple packet of the first. */
  public static byte[] pcapng(ByteOrder order, List<byte[]> packets) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    out.writeBytes(section(order));
    block(out, order, 5, new byte[20]); // statistics, passed over
    for (int i = 0; i < packets.size(); i++) {
      byte[] packet = packets.get(i);
      ByteBuffer body =
          ByteBuffer.allocate((i % 2 == 0 ? 20 : 4) + (packet.length + 3) / 4 * 4).order(order);
      if (i % 2 == 0) {
        body.putInt(1).putInt(1).putInt(2).putInt(packet.length).putInt(packet.length);
        body.put(packet);
        block(out, order, 6, body.array());
      } else {
        block(out, order, 3, body.putInt(packet.length).put(packet).array());
      }
    }
    return out.toByteArray();
  }

  /** The head of a section, with its two interfaces. */
  public static byte[] section(ByteOrder order) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    ByteBuffer head = ByteBuffer.allocate(16).order(order);
    block(out, order, 0x0a0d0d0a, head.putInt(0x1a2b3c4d).putInt(1).putLong(-1).array());
    for (int i = 0; i < 2; i++) {
      block(out, order, 1, ByteBuffer.allocate(8).order(order).putShort((short) 101).array());
    }
    return out.toByteArray();
  }

  private static void block(ByteArrayOutputStream out, ByteOrder order, int type, byte[] body) {
    byte[] edge = ByteBuffer.allocate(4).order(order).putInt(body.length + 12).array();
    out.writeBytes(ByteBuffer.allocate(4).order(order).putInt(type).array());
    out.writeBytes(edge);
    out.writeBytes(body);
    out.writeBytes(edge);
  }

  /** An IPv4 packet from 10.0.0.{@code from} to 10.0.0.{@code to}. */
  public static byte[] ipv4(int from, int to, int protocol, byte[] body) {
    ByteBuffer out = ByteBuffer.allocate(20 + body.length);
    out.put(0, (byte) 0x45).putShort(2, (short) out.capacity()).put(9, (byte) protocol);
    out.putInt(12, 10 << 24 | from).putInt(16, 10 << 24 | to);
    return out.position(20).put(body).array();
  }

  /** The same over IPv6, between 2001:db8::{@code from} and {@code to}, with an empty header. */
  public static byte[] ipv6(int from, int to, int protocol, byte[] body) {
    ByteBuffer out = ByteBuffer.allocate(48 + body.length);
    out.put(0, (byte) 0x60).putShort(4, (short) (8 + body.length)).put(6, (byte) 60);
    out.putInt(8, 0x20010db8).putInt(20, from).putInt(24, 0x20010db8).putInt(36, to);
    out.put(40, (byte) protocol);
    return out.position(48).put(body).array();
  }

  public static byte[] tcp(int fromPort, int toPort, int sequence, int flags, byte[] data) {
    ByteBuffer out = ByteBuffer.allocate(20 + data.length);
    out.putShort((short) fromPort).putShort((short) toPort).putInt(sequence).putInt(0);
    out.put((byte) 0x50).put((byte) flags);
    return out.position(20).put(data).array();
  }

  public static byte[] udp(int fromPort, int toPort, byte[] data) {
    ByteBuffer out = ByteBuffer.allocate(8 + data.length);
    out.putShort((short) fromPort).putShort((short) toPort).putShort((short) out.capacity());
    return out.position(8).put(data).array();
  }
}
