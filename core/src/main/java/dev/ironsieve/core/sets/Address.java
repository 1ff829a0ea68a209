package dev.ironsieve.core.sets;

/**
 * One IPv4 or IPv6 address. All IPv4 addresses order before all IPv6 addresses.
 *
 * @param family the family
 * @param high the upper 64 bits, unsigned; 0 for IPv4
 * @param low the lower 64 bits, unsigned; for IPv4 at most 2^32 - 1
 */
public record Address(Family family, long high, long low) implements Comparable<Address> {
  public Address {
    if (family == Family.IPV4 && (high != 0 || low >>> 32 != 0)) {
      throw new IllegalArgumentException("not 32 bits: " + Long.toHexString(low));
    }
  }

  /**
   * Reads a dotted IPv4 address (no leading zeros) or an IPv6 address (RFC 4291, section 2.2).
   *
   * @throws InvalidText if {@code text} is neither
   */
  public static Address parse(String text) {
    return text.indexOf(':') >= 0 ? Ipv6Text.parse(text) : parseIpv4(text, 0, text.length());
  }

  static Address parseIpv4(String text, int from, int end) {
    long value = 0;
    int at = from;
    for (int part = 0; part < 4; part++) {
      if (part > 0) {
        if (at >= end || text.charAt(at) != '.') {
          throw new InvalidText(at, "\".\" and a number from 0 to 255", text.substring(at, end));
        }
        at++;
      }
      int start = at;
      int number = 0;
      while (at < end && at - start < 3 && isDigit(text.charAt(at))) {
        number = number * 10 + text.charAt(at) - '0';
        at++;
      }
      boolean padded = at - start > 1 && text.charAt(start) == '0';
      if (at == start || number > 255 || padded) {
        String found = text.substring(start, Math.max(at, Math.min(end, start + 1)));
        throw new InvalidText(start, "a number from 0 to 255 without leading zeros", found);
      }
      value = value << 8 | number;
    }
    if (at != end) {
      throw new InvalidText(at, "the end of an IPv4 address", text.substring(at, end));
    }
    return new Address(Family.IPV4, 0, value);
  }

  private static boolean isDigit(char c) {
    return c >= '0' && c <= '9';
  }

  /** The address after this one, or null after the family's highest. */
  public Address next() {
    if (equals(family.highest())) {
      return null;
    }
    return new Address(family, low == -1L ? high + 1 : high, low + 1);
  }

  /** The address before this one, or null before the family's lowest. */
  public Address previous() {
    if (equals(family.lowest())) {
      return null;
    }
    return new Address(family, low == 0 ? high - 1 : high, low - 1);
  }

  /** This address with all bits behind the first {@code length} set to {@code one}. */
  Address filled(int length, boolean one) {
    int free = family.bits() - length;
    long lowMask = free >= 64 ? -1L : (1L << free) - 1;
    long highMask = free <= 64 ? 0 : free == 128 ? -1L : (1L << (free - 64)) - 1;
    return one
        ? new Address(family, high | highMask, low | lowMask)
        : new Address(family, high & ~highMask, low & ~lowMask);
  }

  @Override
  public int compareTo(Address other) {
    if (family != other.family) {
      return family.compareTo(other.family);
    }
    int byHigh = Long.compareUnsigned(high, other.high);
    return byHigh != 0 ? byHigh : Long.compareUnsigned(low, other.low);
  }

  /** Dotted for IPv4, the canonical form of RFC 5952 for IPv6. */
  @Override
  public String toString() {
    if (family == Family.IPV6) {
      return Ipv6Text.format(this);
    }
    return (low >> 24) + "." + (low >> 16 & 255) + "." + (low >> 8 & 255) + "." + (low & 255);
  }

  // Written out, since the generated ones are slow until they have been compiled.
  @Override
  public boolean equals(Object o) {
    return o instanceof Address other
        && low == other.low
        && high == other.high
        && family == other.family;
  }

  @Override
  public int hashCode() {
    return 31 * (31 * Long.hashCode(high) + Long.hashCode(low)) + family.ordinal();
  }
}
