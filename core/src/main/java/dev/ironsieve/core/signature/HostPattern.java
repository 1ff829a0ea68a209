package dev.ironsieve.core.signature;

import dev.ironsieve.core.model.InvalidModel;
import java.util.Locale;
import java.util.regex.Pattern;

/**
 * A host name (RFC 1123, section 2.1), or everything below one.
 *
 * @param name in lower case
 * @param below whether names below it are meant, at any depth, and not itself
 */
public record HostPattern(String name, boolean below) {
  private static final Pattern NAME =
      Pattern.compile(
          "([a-z0-9_]([a-z0-9_-]{0,61}[a-z0-9_])?\\.)*[a-z0-9_]([a-z0-9_-]{0,61}[a-z0-9_])?");
  private static final int MAX_NAME = 253;
  private static final int EXACT = 1000;
  private static final int BELOW = 500;
  private static final int LABEL = 10;

  public HostPattern {
    if (name.length() > MAX_NAME || !NAME.matcher(name).matches()) {
      throw new InvalidModel("host", "a host name in lower case, or one behind \"*.\"", name);
    }
  }

  /** Reads {@code name} or {@code *.name}; throws {@link InvalidModel} if it is neither. */
  public static HostPattern parse(String text) {
    return text.startsWith("*.")
        ? new HostPattern(text.substring(2), true)
        : new HostPattern(text, false);
  }

  /** A name from the wire in the form in which patterns are; a last dot is no part of it. */
  static String normal(String host) {
    String lower = host.toLowerCase(Locale.ROOT);
    return lower.endsWith(".") ? lower.substring(0, lower.length() - 1) : lower;
  }

  /**
   * @param host in lower case
   */
  boolean covers(String host) {
    return below
        ? host.length() > name.length() + 1
            && host.endsWith(name)
            && host.charAt(host.length() - name.length() - 1) == '.'
        : host.equals(name);
  }

  int weight() {
    int labels = 1 + (int) name.chars().filter(c -> c == '.').count();
    return (below ? BELOW : EXACT) + LABEL * labels;
  }

  @Override
  public String toString() {
    return below ? "*." + name : name;
  }
}
