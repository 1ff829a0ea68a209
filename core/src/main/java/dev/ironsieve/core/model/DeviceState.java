package dev.ironsieve.core.model;

import java.util.Collections;
import java.util.Locale;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A condition on a device, or the known facts of one: facts that all hold, in any order, separated
 * by commas.
 *
 * <pre>
 *   managed                      unmanaged
 *   platform kelpos              one word
 *   has disk-lock                a condition that holds, one word
 *   lacks fresh-updates          one that does not
 *   managed, platform kelpos, has disk-lock
 * </pre>
 *
 * @param managed null if either will do
 * @param platform in lower case; null for any
 * @param has conditions that hold, in lower case
 * @param lacks conditions that do not
 */
public record DeviceState(
    Boolean managed, String platform, SortedSet<String> has, SortedSet<String> lacks) {
  private static final String WORD = "[a-z0-9](?:[a-z0-9._-]*[a-z0-9])?";
  private static final String BETWEEN = " *, *";
  private static final Pattern FACT =
      Pattern.compile("managed|unmanaged|(platform|has|lacks) +(" + WORD + ")");
  private static final Pattern FACTS =
      Pattern.compile("(?:%1$s)(?:%2$s(?:%1$s))*".formatted(FACT.pattern(), BETWEEN));

  public DeviceState {
    has = Collections.unmodifiableSortedSet(new TreeSet<>(has));
    lacks = Collections.unmodifiableSortedSet(new TreeSet<>(lacks));
  }

  /**
   * Reads one.
   *
   * @throws InvalidModel if the text is none, or contradicts itself
   */
  public static DeviceState parse(String text) {
    Boolean managed = null;
    String platform = null;
    SortedSet<String> has = new TreeSet<>();
    SortedSet<String> lacks = new TreeSet<>();
    if (text.length() > Names.MAX_NAME) {
      throw invalid(text);
    }
    for (String part : text.strip().toLowerCase(Locale.ROOT).split(BETWEEN, -1)) {
      Matcher fact = FACT.matcher(part);
      if (!fact.matches()) {
        throw invalid(text);
      }
      boolean fresh;
      if (fact.group(1) == null) {
        fresh = managed == null;
        managed = part.equals("managed");
      } else if (fact.group(1).equals("platform")) {
        fresh = platform == null;
        platform = fact.group(2);
      } else {
        String condition = fact.group(2);
        fresh = !has.contains(condition) && !lacks.contains(condition);
        (fact.group(1).equals("has") ? has : lacks).add(condition);
      }
      if (!fresh) {
        throw new InvalidModel(
            "device state", "each fact of a device once, and one platform", Names.quoted(text));
      }
    }
    return new DeviceState(managed, platform, has, lacks);
  }

  private static InvalidModel invalid(String found) {
    return new InvalidModel(
        "device state",
        "facts such as managed, unmanaged, platform kelpos, has disk-lock or lacks disk-lock,"
            + " with commas between them",
        Names.quoted(found));
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

  /** The number of characters of a line, from a place on, that are a device state; 0 for none. */
  public static int lengthAt(String line, int from) {
    Matcher facts = FACTS.matcher(line.toLowerCase(Locale.ROOT)).region(from, line.length());
    return facts.lookingAt() ? facts.end() - from : 0;
  }

  /** Whether a device that is so, and of which nothing else holds, is one that is asked for. */
  public boolean holdsFor(DeviceState device) {
    return (managed == null || managed.equals(device.managed))
        && (platform == null || platform.equals(device.platform))
        && device.has.containsAll(has)
        && lacks.stream().noneMatch(device.has::contains);
  }

  @Override
  public String toString() {
    StringBuilder out = new StringBuilder();
    if (managed != null) {
      out.append(managed ? ", managed" : ", unmanaged");
    }
    if (platform != null) {
      out.append(", platform ").append(platform);
    }
    has.forEach(condition -> out.append(", has ").append(condition));
    lacks.forEach(condition -> out.append(", lacks ").append(condition));
    return out.isEmpty() ? "" : out.substring(2);
  }
}
