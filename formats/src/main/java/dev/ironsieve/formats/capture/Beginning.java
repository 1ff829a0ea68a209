package dev.ironsieve.formats.capture;

import dev.ironsieve.core.signature.Sight;
import java.util.Arrays;
import java.util.BitSet;

/**
 * The first bytes of one side of a TCP connection, put together from segments that come in any
 * order, twice, or overlap; of bytes that come twice, those that came first count. What lies behind
 * a gap is kept until the gap is filled.
 */
final class Beginning {
  private static final int SMALL = 1024;

  private byte[] bytes = new byte[0];
  private BitSet behind; // which bytes behind the first gap are there; null while there are none
  private int whole; // bytes before the first gap
  private int first; // sequence number of the first byte
  private boolean known; // whether that number is known

  /** The side's first byte has this sequence number. */
  void from(int sequence) {
    first = sequence;
    known = true;
  }

  /** Whether its beginning was seen, or data whose beginning was not. */
  boolean begun() {
    return known;
  }

  boolean startsAt(int sequence) {
    return known && first == sequence;
  }

  /** Returns by how many bytes more than before this now holds in memory. */
  int add(int sequence, byte[] data, int start, int length) {
    if (!known) {
      from(sequence);
    }
    int offset = sequence - first; // of 32 bits, so it survives the numbers' turning round
    int skip = Math.max(0, -offset);
    int at = Math.max(0, offset);
    int end = (int) Math.min(Sight.MAX_BYTES, (long) offset + length);
    if (skip >= length || at >= end || end <= whole) {
      return 0;
    }
    int before = bytes.length;
    if (end > bytes.length) {
      bytes = Arrays.copyOf(bytes, Math.min(Sight.MAX_BYTES, Math.max(end, end + SMALL / 2)));
    }
    if (at <= whole && behind == null) {
      System.arraycopy(data, start + skip + whole - at, bytes, whole, end - whole);
      whole = end;
      return bytes.length - before;
    }
    behind = behind == null ? new BitSet() : behind;
    for (int i = Math.max(at, whole); i < end; i++) {
      if (!behind.get(i)) {
        bytes[i] = data[start + skip + i - at];
        behind.set(i);
      }
    }
    whole = Math.max(whole, behind.nextClearBit(whole));
    if (behind.length() <= whole) {
      behind = null;
    }
    return bytes.length - before;
  }

  /** Drops everything but the position at which it began. */
  void forget() {
    bytes = new byte[0];
    behind = null;
    whole = 0;
  }

  /** The bytes before the first gap. */
  byte[] bytes() {
    return Arrays.copyOf(bytes, whole);
  }
}
