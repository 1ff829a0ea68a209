package dev.ironsieve.core.sets;

/** Reading (RFC 4291, section 2.2) and writing (RFC 5952, section 4) of IPv6 addresses. */
final class Ipv6Text {
  private static final int GROUPS = 8;

  private Ipv6Text() {}

  static Address parse(String text) {
    int[] groups = new int[GROUPS];
    int count = 0;
    int gap = -1; // index of the group before which "::" stands
    int at = 0;
    if (text.startsWith("::")) {
      gap = 0;
      at = 2;
    }
    while (at < text.length()) {
      int end = at;
      while (end < text.length() && text.charAt(end) != ':') {
        end++;
      }
      String part = text.substring(at, end);
      if (part.indexOf('.') >= 0 && end == text.length() && count <= GROUPS - 2) {
        long v4 = Address.parseIpv4(text, at, end).low();
        groups[count++] = (int) (v4 >> 16);
        groups[count++] = (int) (v4 & 0xffff);
        at = end;
        break;
      }
      if (count == GROUPS || part.isEmpty() || part.length() > 4 || !isHex(part)) {
        String expected = count == GROUPS ? "at most 8 groups" : "1 to 4 hexadecimal digits";
        throw new InvalidText(at, expected, part.isEmpty() ? text.substring(at) : part);
      }
      groups[count++] = Integer.parseInt(part, 16);
      if (end == text.length()) {
        at = end;
        break;
      }
      if (text.startsWith("::", end)) {
        if (gap >= 0) {
          throw new InvalidText(end, "a single \"::\"", text.substring(end));
        }
        gap = count;
        at = end + 2;
      } else {
        at = end + 1;
        if (at == text.length()) {
          throw new InvalidText(at, "1 to 4 hexadecimal digits", "");
        }
      }
    }
    if (gap < 0 ? count != GROUPS : count == GROUPS) {
      throw new InvalidText(text.length(), "8 groups, or fewer and one \"::\"", count + " groups");
    }
    long high = 0;
    long low = 0;
    for (int i = 0; i < GROUPS; i++) {
      int missing = GROUPS - count;
      long group = gap < 0 || i < gap ? groups[i] : i < gap + missing ? 0 : groups[i - missing];
      if (i < 4) {
        high = high << 16 | group;
      } else {
        low = low << 16 | group;
      }
    }
    return new Address(Family.IPV6, high, low);
  }

  private static boolean isHex(String part) {
    return part.chars().allMatch(c -> c < 128 && Character.digit(c, 16) >= 0);
  }

  static String format(Address address) {
    int[] groups = new int[GROUPS];
    for (int i = 0; i < GROUPS; i++) {
      long half = i < 4 ? address.high() : address.low();
      groups[i] = (int) (half >>> (48 - 16 * (i % 4)) & 0xffff);
    }
    // The first of the longest runs of two or more zero groups is shortened.
    int best = -1;
    int bestLength = 1;
    for (int i = 0; i < GROUPS; i++) {
      int length = 0;
      while (i + length < GROUPS && groups[i + length] == 0) {
        length++;
      }
      if (length > bestLength) {
        best = i;
        bestLength = length;
      }
      i += length;
    }
    StringBuilder out = new StringBuilder();
    for (int i = 0; i < GROUPS; i++) {
      if (i == best) {
        out.append("::");
        i += bestLength - 1;
      } else {
        boolean first = out.isEmpty() || out.charAt(out.length() - 1) == ':';
        out.append(first ? "" : ":").append(Integer.toHexString(groups[i]));
      }
    }
    return out.toString();
  }
}
