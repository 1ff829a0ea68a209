package dev.ironsieve.core.model;

import java.math.BigDecimal;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A bit rate.
 *
 * @param bits bits per second, 1 to {@value #MOST}
 */
public record Rate(long bits) implements Comparable<Rate> {
  /** 1 Pbit/s. */
  public static final long MOST = 1_000_000_000_000_000L;

  private static final Pattern TEXT =
      Pattern.compile("(\\d{1,15}(?:\\.\\d{1,6})?) ?([kMGT]?)bit/s");
  private static final Map<String, Long> UNITS = new LinkedHashMap<>(); // largest first

  static {
    UNITS.put("T", 1_000_000_000_000L);
    UNITS.put("G", 1_000_000_000L);
    UNITS.put("M", 1_000_000L);
    UNITS.put("k", 1_000L);
    UNITS.put("", 1L);
  }

  public Rate {
    if (bits < 1 || bits > MOST) {
      throw new InvalidModel("rate", "1 bit/s to 1000 Tbit/s", bits + " bit/s");
    }
  }

  /**
   * Reads a number and a unit with a decimal prefix (ISO 80000-13): {@code 20 Mbit/s}, {@code 2.5
   * Gbit/s}, {@code 800 bit/s}.
   *
   * @throws InvalidModel if it is none, or no whole number of bits
   */
  public static Rate parse(String text) {
    Matcher matcher = TEXT.matcher(text);
    if (!matcher.matches()) {
      throw new InvalidModel(
          "rate", "a rate such as 20 Mbit/s (bit/s, kbit/s, Gbit/s, Tbit/s)", Names.quoted(text));
    }
    BigDecimal bits =
        new BigDecimal(matcher.group(1)).multiply(BigDecimal.valueOf(UNITS.get(matcher.group(2))));
    if (bits.stripTrailingZeros().scale() > 0 || bits.compareTo(BigDecimal.valueOf(MOST)) > 0) {
      throw new InvalidModel(
          "rate", "a whole number of bits, up to 1000 Tbit/s", Names.quoted(text));
    }
    return new Rate(bits.longValueExact());
  }

  @Override
  public int compareTo(Rate other) {
    return Long.compare(bits, other.bits);
  }

  /** In the largest unit that is a whole number of it; {@link #parse} reads it back. */
  @Override
  public String toString() {
    return text(bits);
  }

  /** The same for any number of bits per second, 0 and what is beyond the most included. */
  public static String text(long bits) {
    for (Map.Entry<String, Long> unit : UNITS.entrySet()) {
      if (bits != 0 && bits % unit.getValue() == 0) {
        return bits / unit.getValue() + " " + unit.getKey() + "bit/s";
      }
    }
    return bits + " bit/s";
  }
}
