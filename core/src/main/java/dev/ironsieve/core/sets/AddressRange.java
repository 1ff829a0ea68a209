package dev.ironsieve.core.sets;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * A run of addresses of one family.
 *
 * @param first lowest address, included
 * @param last highest address, included
 */
public record AddressRange(Address first, Address last) implements Comparable<AddressRange> {
  public AddressRange {
    if (first.family() != last.family() || first.compareTo(last) > 0) {
      throw new IllegalArgumentException("not a range: " + first + " to " + last);
    }
  }

  /** The prefix of this length, 0 to 32 or 128, that holds {@code address}. */
  public static AddressRange prefix(Address address, int length) {
    if (length < 0 || length > address.family().bits()) {
      throw new IllegalArgumentException(address + "/" + length);
    }
    return new AddressRange(address.filled(length, false), address.filled(length, true));
  }

  /** The number of its addresses, 1 to 2^128. */
  public BigInteger size() {
    return number(last).subtract(number(first)).add(BigInteger.ONE);
  }

  private static BigInteger number(Address address) {
    return new BigInteger(Long.toUnsignedString(address.high()))
        .shiftLeft(Long.SIZE)
        .add(new BigInteger(Long.toUnsignedString(address.low())));
  }

  /** The fewest prefixes that together are this range, in ascending order; at most 254. */
  public List<AddressRange> prefixes() {
    List<AddressRange> out = new ArrayList<>();
    Address start = first;
    while (start != null) {
      int length = 0;
      AddressRange widest = prefix(start, length);
      while (!widest.first().equals(start) || widest.last().compareTo(last) > 0) {
        widest = prefix(start, ++length);
      }
      out.add(widest);
      start = widest.last().equals(last) ? null : widest.last().next();
    }
    return out;
  }

  public static AddressRange all(Family family) {
    return new AddressRange(family.lowest(), family.highest());
  }

  /**
   * Reads {@code 10.4.2.9}, {@code 10.4.0.0/16}, {@code 10.4.2.1-10.4.2.20} or their IPv6 kin. A
   * prefix whose address has bits set behind its length is refused, since it is usually a slip.
   *
   * @throws InvalidText if {@code text} is none of these
   */
  public static AddressRange parse(String text) {
    int slash = text.indexOf('/');
    int dash = text.indexOf('-');
    if (slash >= 0) {
      return parsePrefix(text, slash);
    }
    if (dash < 0) {
      Address only = Address.parse(text);
      return new AddressRange(only, only);
    }
    Address first = Address.parse(text.substring(0, dash));
    Address last;
    try {
      last = Address.parse(text.substring(dash + 1));
    } catch (InvalidText e) {
      throw e.shifted(dash + 1);
    }
    if (first.family() != last.family() || first.compareTo(last) > 0) {
      throw new InvalidText(
          dash + 1, "an address of the same family, not below " + first, last.toString());
    }
    return new AddressRange(first, last);
  }

  private static AddressRange parsePrefix(String text, int slash) {
    Address base = Address.parse(text.substring(0, slash));
    String digits = text.substring(slash + 1);
    int bits = base.family().bits();
    boolean number = !digits.isEmpty() && digits.length() <= 3 && digits.matches("0|[1-9][0-9]*");
    if (!number || Integer.parseInt(digits) > bits) {
      throw new InvalidText(slash + 1, "a prefix length from 0 to " + bits, digits);
    }
    int length = Integer.parseInt(digits);
    Address first = base.filled(length, false);
    if (!first.equals(base)) {
      throw new InvalidText(
          0, "no bits set behind the prefix length, as in " + first + "/" + length, text);
    }
    return prefix(base, length);
  }

  public Family family() {
    return first.family();
  }

  public boolean contains(Address address) {
    return first.compareTo(address) <= 0 && address.compareTo(last) <= 0;
  }

  /** The prefix length if this is exactly one prefix (32 or 128 for one address), else -1. */
  public int prefixLength() {
    long spreadHigh = first.high() ^ last.high();
    long spreadLow = first.low() ^ last.low();
    int free =
        spreadHigh != 0
            ? 128 - Long.numberOfLeadingZeros(spreadHigh)
            : 64 - Long.numberOfLeadingZeros(spreadLow);
    int length = family().bits() - free;
    boolean aligned =
        first.filled(length, false).equals(first) && first.filled(length, true).equals(last);
    return aligned ? length : -1;
  }

  /** The address behind the last, if the family has one. */
  public Optional<Address> behind() {
    return Optional.ofNullable(last.next());
  }

  /** An address of this range, where possible not its first, which may name a network. */
  public Address someHost() {
    return first.equals(last) ? first : first.next();
  }

  @Override
  public int compareTo(AddressRange other) {
    int byFirst = first.compareTo(other.first);
    return byFirst != 0 ? byFirst : last.compareTo(other.last);
  }

  /** The shortest text that {@link #parse} reads back. */
  @Override
  public String toString() {
    int length = prefixLength();
    if (length == family().bits()) {
      return first.toString();
    }
    return length >= 0 ? first + "/" + length : first + "-" + last;
  }

  // Written out, since the generated ones are slow until they have been compiled.
  @Override
  public boolean equals(Object o) {
    return o instanceof AddressRange other && first.equals(other.first) && last.equals(other.last);
  }

  @Override
  public int hashCode() {
    return 31 * first.hashCode() + last.hashCode();
  }
}
