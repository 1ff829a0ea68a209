package dev.ironsieve.core.signature;

/**
 * The first question of a DNS message (RFC 1035, section 4.1).
 *
 * @param name in lower case; empty for the root
 */
public record DnsQuestion(String name, int type) {
  private static final int MAX_LABEL = 63;
  private static final int MAX_QUESTIONS = 16;
  private static final int MAX_RECORDS = 64;

  /**
   * Null if these bytes are no question.
   *
   * @param start where the message begins: 0, or 2 behind the length that TCP has before it
   */
  static DnsQuestion of(byte[] message, int start, int length) {
    Bytes in = new Bytes(message, start, length);
    in.u16();
    int flags = in.u16();
    int questions = in.u16();
    int answers = in.u16();
    int authorities = in.u16();
    int more = in.u16();
    // A query: not a response, opcode 0 to 5, no reserved bit, no answers yet.
    boolean query = (flags & 0x8000) == 0 && (flags >> 11 & 15) <= 5 && (flags & 0x40) == 0;
    if (!query
        || questions == 0
        || questions > MAX_QUESTIONS
        || answers > MAX_RECORDS
        || authorities > MAX_RECORDS
        || more > MAX_RECORDS) {
      return null;
    }
    StringBuilder name = new StringBuilder();
    for (int size = in.u8(); size > 0; size = in.u8()) {
      String label = size > MAX_LABEL ? null : in.slice(size).text();
      if (label == null || in.failed()) {
        return null;
      }
      name.append(name.isEmpty() ? "" : ".").append(label);
    }
    int type = in.u16();
    int asked = in.u16() & 0x7fff; // multicast DNS uses the highest bit (RFC 6762, 5.4)
    boolean known = asked == 1 || asked == 3 || asked == 4 || asked == 255;
    return in.failed() || !known
        ? null
        : new DnsQuestion(HostPattern.normal(name.toString()), type);
  }
}
