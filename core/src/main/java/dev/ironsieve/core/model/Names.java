package dev.ironsieve.core.model;

import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;

/**
 * Checks the names of zones, objects, sections and rules, and compares them without regard to case.
 */
public final class Names {
  /** Most characters in a name. */
  public static final int MAX_NAME = 100;

  /** Most characters in the name of a value or set: a host (253) and the part of a path. */
  public static final int MAX_VALUE = 300;

  /** Most characters in a rule's note. */
  public static final int MAX_NOTE = 2000;

  private static final Pattern OBJECT =
      Pattern.compile("[\\p{L}][\\p{L}\\p{N} ._&()+'-]{0," + (MAX_NAME - 1) + "}");
  private static final Set<String> TAKEN =
      Set.of("any", "except", "from", "to", "in", "unknown", "tcp", "udp", "sctp", "icmp", "icmp6");
  private static final Pattern ID = Pattern.compile("[A-Za-z0-9_-]{1,40}");

  private Names() {}

  /** Checks the name of a zone or object, which must never read like an address or a service. */
  static String checkObject(String kind, String name) {
    boolean fits =
        name != null
            && OBJECT.matcher(name).matches()
            && name.equals(name.strip())
            && !TAKEN.contains(key(name));
    if (!fits) {
      throw new InvalidModel(
          kind + " name",
          "a letter, then up to "
              + (MAX_NAME - 1)
              + " letters, digits, spaces or . _ & ( ) + ' -, and no reserved word",
          quoted(name));
    }
    return name;
  }

  /** Checks the name of a rule or section: any visible text. */
  public static String checkTitle(String kind, String name) {
    boolean fits =
        name != null && !name.isBlank() && name.length() <= MAX_NAME && isPrintable(name);
    if (!fits) {
      throw new InvalidModel(
          kind + " name", "1 to " + MAX_NAME + " characters on one line", quoted(name));
    }
    return name.strip();
  }

  /** Checks the name of a value or set of a vocabulary, which may be a host with a path. */
  static void checkValue(String kind, String name) {
    boolean fits =
        name != null && !name.isBlank() && name.length() <= MAX_VALUE && isPrintable(name);
    if (!fits) {
      throw new InvalidModel(kind, "1 to " + MAX_VALUE + " characters on one line", quoted(name));
    }
  }

  public static String checkId(String kind, String id) {
    if (id == null || !ID.matcher(id).matches()) {
      throw new InvalidModel(kind + " id", "1 to 40 letters, digits, \"_\" or \"-\"", quoted(id));
    }
    return id;
  }

  public static String checkNote(String note) {
    boolean fits =
        note != null
            && note.length() <= MAX_NOTE
            && note.codePoints().noneMatch(c -> isUnprintable(c) && c != '\n' && c != '\t');
    if (!fits) {
      String found = note == null ? "nothing" : note.length() + " characters";
      throw new InvalidModel("note", "at most " + MAX_NOTE + " printable characters", found);
    }
    return note;
  }

  /** Whether a text can stand on one line and be stored. */
  public static boolean isPrintable(String text) {
    return text.codePoints().noneMatch(Names::isUnprintable);
  }

  /** Control characters, and halves of surrogate pairs, which no encoding can carry. */
  private static boolean isUnprintable(int c) {
    return Character.isISOControl(c)
        || (c >= Character.MIN_SURROGATE && c <= Character.MAX_SURROGATE);
  }

  /** Names that differ in case only are the same name. */
  public static String key(String name) {
    return name.toLowerCase(Locale.ROOT);
  }

  /**
   * The keys of names.
   *
   * @param kind the kind of object that has these names
   * @throws InvalidModel if two are the same
   */
  public static Set<String> unique(String kind, List<String> names) {
    Set<String> keys = new HashSet<>();
    for (String name : names) {
      if (!keys.add(key(name))) {
        throw new InvalidModel(kind + " names", "each name once", "\"" + name + "\" twice");
      }
    }
    return keys;
  }

  /** A text as it is shown in an error: in quotes, and shortened if it is long. */
  public static String quoted(String found) {
    if (found == null) {
      return "nothing";
    }
    return '"' + (found.length() > MAX_NAME ? found.substring(0, MAX_NAME) + "…" : found) + '"';
  }
}
