package dev.ironsieve.core.signature;

import dev.ironsieve.core.model.InvalidModel;
import java.util.Arrays;

/**
 * Bytes at a place, some of which may be anything. Its text is hexadecimal pairs, {@code ??} for
 * any byte, behind the place if that is not 0:
 *
 * <pre>
 *   53 53 48 2d          at the start
 *   @4: 21 12 a4 42      from the fifth byte on
 *   16 03 ?? ?? ?? 01
 * </pre>
 */
public final class BytePattern {
  /** Farthest place of a byte that a pattern can ask for, from 0. */
  public static final int FARTHEST = 1023;

  private static final int ANY = -1;
  private static final int FIXED = 20;

  private final int at;
  private final int[] bytes; // 0 to 255, or ANY

  private BytePattern(int at, int[] bytes) {
    this.at = at;
    this.bytes = bytes;
  }

  /** Throws {@link InvalidModel} if {@code text} is no such pattern. */
  public static BytePattern parse(String text) {
    String rest = text.strip();
    int at = 0;
    if (rest.startsWith("@")) {
      int colon = rest.indexOf(':');
      at = colon < 0 ? -1 : number(rest.substring(1, colon));
      rest = rest.substring(colon + 1).strip();
    }
    String[] pairs = rest.split(" +");
    int[] bytes = new int[pairs.length];
    boolean fixed = false;
    for (int i = 0; i < pairs.length; i++) {
      bytes[i] = pairs[i].equals("??") ? ANY : hex(pairs[i]);
      fixed |= bytes[i] >= 0;
      if (bytes[i] < ANY) {
        throw invalid(text);
      }
    }
    if (!fixed || at < 0 || at + bytes.length > FARTHEST + 1) {
      throw invalid(text);
    }
    return new BytePattern(at, bytes);
  }

  private static InvalidModel invalid(String text) {
    return new InvalidModel(
        "bytes",
        "hexadecimal pairs or ??, not all of them ??, up to byte "
            + FARTHEST
            + ", such as @4: 21 ??",
        '"' + text + '"');
  }

  private static int number(String digits) {
    return digits.matches("[0-9]{1,4}") ? Integer.parseInt(digits) : -1;
  }

  private static int hex(String pair) {
    return pair.matches("[0-9a-fA-F]{2}") ? Integer.parseInt(pair, 16) : ANY - 1;
  }

  boolean holds(byte[] from, int length) {
    if (at + bytes.length > length) {
      return false;
    }
    for (int i = 0; i < bytes.length; i++) {
      if (bytes[i] >= 0 && (from[at + i] & 0xff) != bytes[i]) {
        return false;
      }
    }
    return true;
  }

  /** The byte that has to come first, or -1 if it may be any. */
  int first() {
    return at == 0 ? bytes[0] : ANY;
  }

  int weight() {
    return FIXED * (int) Arrays.stream(bytes).filter(b -> b >= 0).count();
  }

  @Override
  public boolean equals(Object o) {
    return o instanceof BytePattern other && at == other.at && Arrays.equals(bytes, other.bytes);
  }

  @Override
  public int hashCode() {
    return 31 * at + Arrays.hashCode(bytes);
  }

  /** The text that {@link #parse} reads back. */
  @Override
  public String toString() {
    StringBuilder out = new StringBuilder(at == 0 ? "" : "@" + at + ":");
    for (int b : bytes) {
      out.append(out.isEmpty() ? "" : " ").append(b < 0 ? "??" : "%02x".formatted(b));
    }
    return out.toString();
  }
}
