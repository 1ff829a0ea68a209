package dev.ironsieve.formats.syslog;

import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.formats.syslog.SyslogMessage.Element;
import dev.ironsieve.formats.syslog.SyslogMessage.Parameter;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;

/** Reads syslog messages (RFC 5424, section 6). Not safe for several threads. */
public final class SyslogReader {
  private static final int MOST_PRIORITY = 191;
  private static final int SHOWN = 20; // characters of what was found
  private static final char BYTE_ORDER_MARK = '\uFEFF';

  private final String line;
  private int at;

  private SyslogReader(String line) {
    this.line = line;
  }

  /**
   * Reads one message. O(length).
   *
   * @param line without framing and line end
   * @throws InvalidText if it is no message, with the place
   */
  public static SyslogMessage read(String line) {
    return new SyslogReader(line).message();
  }

  private SyslogMessage message() {
    expect('<', "a priority such as <134>");
    int start = at;
    while (at < line.length() && at - start < 3 && isDigit(line.charAt(at))) {
      at++;
    }
    int priority = at == start ? MOST_PRIORITY + 1 : Integer.parseInt(line.substring(start, at));
    if (priority > MOST_PRIORITY) {
      throw invalid(start, "a priority from 0 to " + MOST_PRIORITY);
    }
    expect('>', "> behind the priority");
    expect('1', "version 1 (RFC 5424)");
    Instant time = time(word("a time"));
    String host = orNull(word("a host name"));
    String app = orNull(word("a program name"));
    String process = orNull(word("a process id"));
    String id = orNull(word("a message id"));
    expect(' ', "structured data");
    List<Element> data = data();
    String text = "";
    if (at < line.length()) {
      expect(' ', "a space before the text");
      text = line.substring(at);
      if (!text.isEmpty() && text.charAt(0) == BYTE_ORDER_MARK) {
        text = text.substring(1);
      }
    }
    return new SyslogMessage(priority / 8, priority % 8, time, host, app, process, id, data, text);
  }

  private static boolean isDigit(char c) {
    return c >= '0' && c <= '9';
  }

  private InvalidText invalid(int place, String expected) {
    String found = line.substring(Math.min(place, line.length()));
    return new InvalidText(
        place, expected, found.length() > SHOWN ? found.substring(0, SHOWN) + "…" : found);
  }

  private void expect(char c, String expected) {
    if (at >= line.length() || line.charAt(at) != c) {
      throw invalid(at, expected);
    }
    at++;
  }

  /** A field of the header behind a space. */
  private String word(String expected) {
    expect(' ', expected);
    int start = at;
    while (at < line.length() && line.charAt(at) != ' ') {
      at++;
    }
    if (at == start) {
      throw invalid(start, expected);
    }
    return line.substring(start, at);
  }

  private static String orNull(String word) {
    return word.equals("-") ? null : word;
  }

  private Instant time(String word) {
    if (word.equals("-")) {
      return null;
    }
    try {
      return OffsetDateTime.parse(word).toInstant();
    } catch (DateTimeException e) {
      throw invalid(at - word.length(), "a time such as 2026-12-01T10:00:00Z");
    }
  }

  private List<Element> data() {
    List<Element> out = new ArrayList<>();
    if (at < line.length() && line.charAt(at) == '-') {
      at++;
      return out;
    }
    do {
      expect('[', "structured data or -");
      String id = name();
      List<Parameter> parameters = new ArrayList<>();
      while (at < line.length() && line.charAt(at) == ' ') {
        at++;
        String name = name();
        expect('=', "= behind the name of a parameter");
        parameters.add(new Parameter(name, value()));
      }
      expect(']', "] behind an element");
      out.add(new Element(id, parameters));
    } while (at < line.length() && line.charAt(at) == '[');
    return out;
  }

  /** Printable ASCII but for {@code = space ] "}. */
  private String name() {
    int start = at;
    while (at < line.length()) {
      char c = line.charAt(at);
      if (c <= ' ' || c >= 127 || c == '=' || c == ']' || c == '"') {
        break;
      }
      at++;
    }
    if (at == start) {
      throw invalid(start, "a name");
    }
    return line.substring(start, at);
  }

  /** A quoted value; {@code \} escapes {@code " \ ]} and stands for itself before any other. */
  private String value() {
    expect('"', "a quoted value");
    StringBuilder out = new StringBuilder();
    while (at < line.length()) {
      char c = line.charAt(at++);
      if (c == '"') {
        return out.toString();
      }
      if (c == '\\' && at < line.length() && "\"\\]".indexOf(line.charAt(at)) >= 0) {
        c = line.charAt(at++);
      }
      out.append(c);
    }
    throw invalid(at, "\" at the end of a value");
  }
}
