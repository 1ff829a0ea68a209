package dev.ironsieve.core.model;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;

/**
 * Sites that a rule can mean: {@code www.quay.example}, everything below a path there ({@code
 * www.quay.example/forms}), or all names below one, at any depth, and not itself ({@code
 * *.quay.example}). Two patterns are either nested or have nothing in common.
 *
 * @param host in lower case
 * @param below whether names below it are meant
 * @param path in lower case, with a leading slash and none at the end; empty for any
 */
public record SitePattern(String host, boolean below, String path) {
  private static final Pattern HOST =
      Pattern.compile(
          "([a-z0-9_]([a-z0-9_-]{0,61}[a-z0-9_])?\\.)+[a-z0-9_]([a-z0-9_-]{0,61}[a-z0-9_])?");
  private static final Pattern TOP = Pattern.compile("[a-z0-9_]([a-z0-9_-]{0,61}[a-z0-9_])?");
  private static final Pattern PATH = Pattern.compile("(/[\\p{Graph}&&[^/,]]+)*");
  private static final int MAX_HOST = 253;
  private static final int MAX_TEXT = Names.MAX_VALUE - 10; // what a value says beside it

  /**
   * Reads one.
   *
   * @throws InvalidModel if the text is none
   */
  public static SitePattern parse(String text) {
    String lower = Names.key(text);
    boolean below = lower.startsWith("*.");
    int slash = lower.indexOf('/');
    String host = lower.substring(below ? 2 : 0, slash < 0 ? lower.length() : slash);
    String path = slash < 0 ? "" : lower.substring(slash);
    while (path.endsWith("/")) {
      path = path.substring(0, path.length() - 1);
    }
    boolean fits =
        text.length() <= MAX_TEXT
            && host.length() <= MAX_HOST
            && (HOST.matcher(host).matches() || (below && TOP.matcher(host).matches()))
            && PATH.matcher(path).matches()
            && (path.isEmpty() || !below);
    if (!fits) {
      throw new InvalidModel(
          "host",
          "a host such as www.quay.example, with a path behind it or not, or *.quay.example",
          Names.quoted(text));
    }
    return new SitePattern(host, below, path);
  }

  /** Whether {@link #parse} reads it. */
  public static boolean isOne(String text) {
    try {
      parse(text);
      return true;
    } catch (InvalidModel e) {
      return false;
    }
  }

  /** Every pattern that holds this one, itself first, then ever wider ones; O(length). */
  public List<String> wider() {
    List<String> out = new ArrayList<>();
    String at = path;
    while (!below) {
      out.add(host + at);
      if (at.isEmpty()) {
        break;
      }
      at = at.substring(0, at.lastIndexOf('/'));
    }
    if (below) {
      out.add("*." + host);
    }
    for (int dot = host.indexOf('.'); dot >= 0; dot = host.indexOf('.', dot + 1)) {
      out.add("*" + host.substring(dot));
    }
    return out;
  }

  @Override
  public String toString() {
    return (below ? "*." : "") + host + path;
  }
}
