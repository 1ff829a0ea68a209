package dev.ironsieve.core.sets;

/** The address families. A connection's two ends are always of the same one. */
public enum Family {
  /** RFC 791. */
  IPV4(32),
  /** RFC 8200. */
  IPV6(128);

  private final int bits;

  Family(int bits) {
    this.bits = bits;
  }

  /** Length of an address in bits. */
  public int bits() {
    return bits;
  }

  /** {@code IPv4} or {@code IPv6}. */
  public String word() {
    return this == IPV4 ? "IPv4" : "IPv6";
  }

  Address lowest() {
    return new Address(this, 0, 0);
  }

  Address highest() {
    return this == IPV4 ? new Address(this, 0, 0xffff_ffffL) : new Address(this, -1L, -1L);
  }
}
