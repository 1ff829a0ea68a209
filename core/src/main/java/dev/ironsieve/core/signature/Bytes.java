package dev.ironsieve.core.signature;

import java.util.Arrays;

/**
 * Reads numbers and slices from bytes of the wire. Reading past the end gives zeros and is
 * remembered, so that a parser checks {@link #failed} once, at its end.
 */
final class Bytes {
  private final byte[] from;
  private final int end;
  private int at;
  private boolean failed;

  Bytes(byte[] from, int start, int end) {
    this.from = from;
    this.at = start;
    this.end = Math.min(end, from.length);
  }

  boolean failed() {
    return failed;
  }

  int left() {
    return failed ? 0 : end - at;
  }

  int at() {
    return at;
  }

  private boolean has(long count) {
    failed |= count < 0 || count > end - at;
    return !failed;
  }

  int u8() {
    return has(1) ? from[at++] & 0xff : 0;
  }

  int u16() {
    return u8() << 8 | u8();
  }

  int u24() {
    return u16() << 8 | u8();
  }

  long u32() {
    return (long) u16() << 16 | u16();
  }

  /** A number of QUIC (RFC 9000, section 16). */
  long varint() {
    int first = u8();
    long value = first & 0x3f;
    for (int more = (1 << (first >> 6)) - 1; more > 0; more--) {
      value = value << 8 | u8();
    }
    return value;
  }

  void skip(long count) {
    if (has(count)) {
      at += (int) count;
    }
  }

  /** The next {@code count} bytes, to be read on their own. */
  Bytes slice(long count) {
    if (!has(count)) {
      return new Bytes(new byte[0], 0, 0);
    }
    Bytes out = new Bytes(from, at, at + (int) count);
    at += (int) count;
    return out;
  }

  byte[] copy(long count) {
    if (!has(count)) {
      return new byte[0];
    }
    byte[] out = Arrays.copyOfRange(from, at, at + (int) count);
    at += (int) count;
    return out;
  }

  /** All that is left, as printable ASCII; null if some of it is not. */
  String text() {
    StringBuilder out = new StringBuilder();
    while (left() > 0) {
      int c = u8();
      if (c <= ' ' || c >= 0x7f) {
        return null;
      }
      out.append((char) c);
    }
    return failed ? null : out.toString();
  }
}
