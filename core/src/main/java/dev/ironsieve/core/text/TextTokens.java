package dev.ironsieve.core.text;

import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.sets.InvalidText;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The words, quoted texts and commas of a line, one after the other. */
final class TextTokens {
  private static final String PLAIN = "[\\p{L}\\p{N}._/:*+-]+";
  private static final Pattern NAME = Pattern.compile(PLAIN);
  private static final Pattern TOKEN =
      Pattern.compile("\\s*(?:(" + PLAIN + ")|\"((?:[^\"\\\\]|\\\\.)*+)\"|(,))", Pattern.DOTALL);

  private final Matcher matcher;
  private final String line;
  private int at; // where the next token is looked for
  private int last; // where the last one began

  TextTokens(String line) {
    this.line = line;
    matcher = TOKEN.matcher(line);
  }

  /** A name as it stands in a line, in quotes where it needs them. */
  static String nameOf(String name) {
    return NAME.matcher(name).matches() ? name : quoted(name);
  }

  static String quoted(String text) {
    return '"'
        + text.replace("\\", "\\\\").replace("\"", "\\\"").replace("\n", "\\n").replace("\t", "\\t")
        + '"';
  }

  boolean atEnd() {
    return line.substring(at).isBlank();
  }

  /** Whether the next token is that word, not in quotes. */
  boolean isNext(String word) {
    return matcher.region(at, line.length()).lookingAt() && word.equals(matcher.group(1));
  }

  /** Takes a comma if one is next. */
  boolean takeComma() {
    boolean comma = matcher.region(at, line.length()).lookingAt() && matcher.group(3) != null;
    if (comma) {
      at = matcher.end();
    }
    return comma;
  }

  /** A word that is not in quotes. */
  String word(String expected) {
    next(expected);
    if (matcher.group(1) == null) {
      throw invalid(expected, found());
    }
    return matcher.group(1);
  }

  void expect(String word) {
    String found = word('"' + word + '"');
    if (!found.equals(word)) {
      throw invalid('"' + word + '"', '"' + found + '"');
    }
  }

  /** A text in quotes. */
  String text(String expected) {
    next(expected);
    if (matcher.group(2) == null) {
      throw invalid(expected, found());
    }
    return unquoted(matcher.group(2));
  }

  /** A word, or a text in quotes. */
  String name(String expected) {
    next(expected);
    if (matcher.group(3) != null) {
      throw invalid(expected, found());
    }
    return matcher.group(1) == null ? unquoted(matcher.group(2)) : matcher.group(1);
  }

  int number(String expected) {
    String word = word(expected);
    try {
      return Integer.parseInt(word);
    } catch (NumberFormatException e) {
      throw invalid(expected, '"' + word + '"');
    }
  }

  private void next(String expected) {
    if (!matcher.region(at, line.length()).lookingAt()) {
      last = at;
      while (last < line.length() && Character.isWhitespace(line.charAt(last))) {
        last++;
      }
      String rest = line.substring(last);
      throw invalid(expected, rest.isEmpty() ? "the end" : Names.quoted(rest));
    }
    int group = matcher.group(1) != null ? 1 : matcher.group(2) != null ? 2 : 3;
    last = group == 2 ? matcher.start(2) - 1 : matcher.start(group);
    at = matcher.end();
  }

  private String found() {
    return Names.quoted(matcher.group().strip());
  }

  /** The content of a text in quotes; every backslash stands before another character. */
  static String unquoted(String text) {
    StringBuilder out = new StringBuilder();
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if (c != '\\') {
        out.append(c);
        continue;
      }
      i++;
      char escaped = text.charAt(i);
      out.append(escaped == 'n' ? '\n' : escaped == 't' ? '\t' : escaped);
    }
    return out.toString();
  }

  /** A fault at the last token. */
  InvalidText invalid(String expected, String found) {
    return new InvalidText(last, expected, found);
  }
}
