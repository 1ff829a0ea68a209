package dev.ironsieve.core.edition;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiFunction;
import java.util.function.Function;

/**
 * The contents that are new, gone or changed in another edition.
 *
 * @param added names of those that are new
 * @param removed names of those that are no longer there
 * @param changed the changes of each entry that stayed, in words, by its name
 */
public record EditionChange(
    List<String> added, List<String> removed, Map<String, List<String>> changed) {
  /**
   * Compares two editions; O(things).
   *
   * @param before the things of the older edition by what they are known by
   * @param name what people call a thing
   * @param differences the differences of two entries that are not equal, in words
   */
  public static <T> EditionChange between(
      Map<String, T> before,
      Map<String, T> after,
      Function<T, String> name,
      BiFunction<T, T, List<String>> differences) {
    List<String> added = new ArrayList<>();
    List<String> removed = new ArrayList<>();
    Map<String, List<String>> changed = new LinkedHashMap<>();
    after.forEach(
        (key, is) -> {
          T was = before.get(key);
          if (was == null) {
            added.add(name.apply(is));
          } else if (!was.equals(is)) {
            changed.put(name.apply(is), differences.apply(was, is));
          }
        });
    before.forEach(
        (key, was) -> {
          if (!after.containsKey(key)) {
            removed.add(name.apply(was));
          }
        });
    return new EditionChange(added, removed, changed);
  }

  /** Adds a difference to {@code out}, if there is one. */
  public static void say(List<String> out, String what, Object was, Object is) {
    if (!was.equals(is)) {
      out.add(what + " from " + words(was) + " to " + words(is));
    }
  }

  private static String words(Object value) {
    if (value instanceof List<?> list) {
      return list.isEmpty()
          ? "none"
          : String.join(", ", list.stream().map(Object::toString).toList());
    }
    return value.toString();
  }
}
