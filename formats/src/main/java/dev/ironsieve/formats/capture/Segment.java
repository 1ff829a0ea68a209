package dev.ironsieve.formats.capture;

import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.Transport;

/** One packet taken apart down to its transport; used again for the next packet. */
final class Segment {
  private static final int ETHERNET = 1;
  private static final int NULL_LINK = 0;
  private static final int LOOP = 108;
  private static final int RAW = 101;
  private static final int RAW_OLD = 12;
  private static final int COOKED = 113;
  private static final int COOKED_2 = 276;

  private static final int IPV4 = 0x0800;
  private static final int IPV6 = 0x86dd;
  private static final int MOST_TAGS = 4;
  private static final int MOST_HEADERS = 10;

  static final int FIN = 1;
  static final int SYN = 2;
  static final int RST = 4;
  static final int ACK = 16;

  private byte[] from;
  private int end;

  boolean v6;
  long fromHigh;
  long fromLow;
  long toHigh;
  long toLow;
  int protocol;
  int fromPort;
  int toPort;
  int flags; // of TCP
  int sequence; // of TCP
  int payload; // where it starts
  int length; // of the payload

  /** Whether the type of link is one that is read here. */
  static boolean knows(int link) {
    return switch (link) {
      case ETHERNET, NULL_LINK, LOOP, RAW, RAW_OLD, COOKED, COOKED_2 -> true;
      default -> false;
    };
  }

  /** Parses a packet; false if it is not IP, cut short, or no first fragment. */
  boolean read(int link, byte[] bytes, int start, int size) {
    from = bytes;
    end = start + size;
    return switch (link) {
      case ETHERNET -> ethernet(start + 12);
      case COOKED -> size >= 16 && network(u16(start + 14), start + 16);
      case COOKED_2 -> size >= 20 && network(u16(start), start + 20);
      case NULL_LINK, LOOP -> size >= 4 && raw(start + 4);
      default -> raw(start);
    };
  }

  private int u8(int at) {
    return from[at] & 0xff;
  }

  private int u16(int at) {
    return u8(at) << 8 | u8(at + 1);
  }

  private int i32(int at) {
    return u16(at) << 16 | u16(at + 2);
  }

  private long i64(int at) {
    return (long) i32(at) << 32 | i32(at + 4) & 0xffffffffL;
  }

  private boolean ethernet(int type) {
    int at = type;
    for (int tags = 0; tags <= MOST_TAGS && at + 2 <= end; tags++) {
      int kind = u16(at);
      if (kind != 0x8100 && kind != 0x88a8 && kind != 0x9100) {
        return network(kind, at + 2);
      }
      at += 4; // a VLAN's tag (IEEE 802.1Q)
    }
    return false;
  }

  private boolean raw(int at) {
    return at < end && network(u8(at) >> 4 == 6 ? IPV6 : IPV4, at);
  }

  private boolean network(int type, int at) {
    return type == IPV4 ? ipv4(at) : type == IPV6 && ipv6(at);
  }

  private boolean ipv4(int at) {
    if (at + 20 > end || u8(at) >> 4 != 4) {
      return false;
    }
    int head = (u8(at) & 15) * 4;
    int total = u16(at + 2);
    if (head < 20 || (u16(at + 6) & 0x1fff) != 0) {
      return false;
    }
    // Zero where the sender leaves the length to its network card.
    end = total == 0 ? end : Math.min(end, at + total);
    v6 = false;
    fromHigh = 0;
    toHigh = 0;
    fromLow = i32(at + 12) & 0xffffffffL;
    toLow = i32(at + 16) & 0xffffffffL;
    return transport(u8(at + 9), at + head);
  }

  private boolean ipv6(int at) {
    if (at + 40 > end || u8(at) >> 4 != 6) {
      return false;
    }
    int total = u16(at + 4);
    end = total == 0 ? end : Math.min(end, at + 40 + total);
    v6 = true;
    fromHigh = i64(at + 8);
    fromLow = i64(at + 16);
    toHigh = i64(at + 24);
    toLow = i64(at + 32);
    int next = u8(at + 6);
    int head = at + 40;
    for (int i = 0; i < MOST_HEADERS; i++) {
      boolean options = next == 0 || next == 43 || next == 60;
      boolean fragment = next == 44;
      if (!options && !fragment) {
        return transport(next, head);
      }
      if (head + 8 > end || (fragment && (u16(head + 2) & 0xfff8) != 0)) {
        return false;
      }
      next = u8(head);
      head += fragment ? 8 : 8 + 8 * u8(head + 1);
    }
    return false;
  }

  private boolean transport(int number, int at) {
    protocol = number;
    fromPort = 0;
    toPort = 0;
    flags = 0;
    int head = 0;
    if (number == Transport.TCP) {
      head = at + 20 <= end ? (u8(at + 12) >> 4) * 4 : -1;
      if (head < 20 || at + head > end) {
        return false;
      }
      sequence = i32(at + 4);
      flags = u8(at + 13);
    } else if (number == Transport.UDP) {
      head = 8;
    } else if (number == Transport.SCTP) {
      head = 12;
    }
    if (head > 0) {
      if (at + head > end) {
        return false;
      }
      fromPort = u16(at);
      toPort = u16(at + 2);
    }
    payload = Math.min(at + head, end);
    length = end - payload;
    return true;
  }

  byte[] bytes() {
    return from;
  }

  Address from() {
    return new Address(v6 ? Family.IPV6 : Family.IPV4, fromHigh, fromLow);
  }

  Address to() {
    return new Address(v6 ? Family.IPV6 : Family.IPV4, toHigh, toLow);
  }

  boolean has(int flag) {
    return (flags & flag) != 0;
  }
}
