package dev.ironsieve.core.signature;

import dev.ironsieve.core.vocabulary.FileKind;
import dev.ironsieve.core.vocabulary.FileKinds;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * Classifies a file by its first bytes, its name and its media type, in this order. A name can
 * refine a kind with the same first bytes, but never contradicts them.
 */
public final class FileTeller {
  private static final FileTeller BUILT_IN = new FileTeller(FileKinds.all());

  private record Beginning(BytePattern bytes, FileKind kind) {}

  private final List<Beginning> beginnings = new ArrayList<>();
  private final Map<String, FileKind> byEnding = new HashMap<>();
  private final Map<String, FileKind> byType = new HashMap<>();

  private FileTeller(List<FileKind> kinds) {
    for (FileKind kind : kinds) {
      kind.beginnings().forEach(b -> beginnings.add(new Beginning(BytePattern.parse(b), kind)));
      kind.endings().forEach(ending -> putOnce(byEnding, ending, kind));
      kind.mediaTypes().forEach(type -> putOnce(byType, type, kind));
    }
  }

  private static void putOnce(Map<String, FileKind> map, String key, FileKind kind) {
    if (map.put(key, kind) != null) {
      throw new IllegalStateException("\"" + key + "\" tells two kinds of files");
    }
  }

  /**
   * The kind of a file.
   *
   * @param kind by its name in {@link FileKinds}
   * @param evidence what told it, in words
   */
  public record Classification(String kind, String evidence) {}

  /**
   * Classifies a file; O(kinds).
   *
   * @param first its first bytes
   * @param name of the file, with or without a path; null if it has none
   * @param type its media type, with or without parameters; null if unknown
   */
  public static Classification tell(byte[] first, String name, String type) {
    return BUILT_IN.of(first, name, type);
  }

  private Classification of(byte[] first, String name, String type) {
    FileKind begun = byBeginning(first);
    FileKind named = name == null ? null : byEnding.get(ending(name));
    FileKind typed = type == null ? null : byType.get(mediaType(type));
    if (begun != null) {
      if (isWithin(named, begun)) {
        return new Classification(
            named.name(), "begins like \"" + begun.name() + "\", named " + name);
      }
      if (isWithin(typed, begun)) {
        return new Classification(
            typed.name(), "begins like \"" + begun.name() + "\", said to be " + mediaType(type));
      }
      String but = named == null || named == begun ? "" : ", though named " + name;
      return new Classification(begun.name(), "begins like one" + but);
    }
    if (named != null && !named.begins()) {
      return new Classification(named.name(), "named " + name);
    }
    if (typed != null && !typed.begins()) {
      return new Classification(typed.name(), "said to be " + mediaType(type));
    }
    String but = named == null ? "" : ", though named " + name;
    return looksLikeText(first)
        ? new Classification(FileKinds.TEXT, "is text" + but)
        : new Classification(FileKinds.OTHER, "begins like no kind that is known" + but);
  }

  private static boolean isWithin(FileKind kind, FileKind other) {
    return kind != null && other.name().equals(kind.within());
  }

  private FileKind byBeginning(byte[] first) {
    Beginning best = null;
    for (Beginning beginning : beginnings) {
      if (beginning.bytes.holds(first, first.length)
          && (best == null || beginning.bytes.weight() > best.bytes.weight())) {
        best = beginning;
      }
    }
    return best == null ? null : best.kind;
  }

  private static String ending(String name) {
    int dot = name.lastIndexOf('.');
    return dot <= name.lastIndexOf('/') ? "" : name.substring(dot + 1).toLowerCase(Locale.ROOT);
  }

  private static String mediaType(String type) {
    int parameters = type.indexOf(';');
    return (parameters < 0 ? type : type.substring(0, parameters)).strip().toLowerCase(Locale.ROOT);
  }

  private static boolean looksLikeText(byte[] first) {
    for (byte b : first) {
      if (b >= 0 && b < ' ' && b != '\n' && b != '\r' && b != '\t' && b != '\f') {
        return false;
      }
    }
    return first.length > 0;
  }
}
