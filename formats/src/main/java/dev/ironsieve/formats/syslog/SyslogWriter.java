package dev.ironsieve.formats.syslog;

import dev.ironsieve.formats.syslog.SyslogMessage.Element;
import dev.ironsieve.formats.syslog.SyslogMessage.Parameter;
import java.nio.charset.StandardCharsets;
import java.time.temporal.ChronoUnit;

/** Writes syslog messages (RFC 5424, section 6). */
public final class SyslogWriter {
  private static final int VERSION = 1;
  private static final String NIL = "-";
  private static final int MOST_HOST = 255;
  private static final int MOST_APP = 48;
  private static final int MOST_PROCESS = 128;
  private static final int MOST_ID = 32;

  private SyslogWriter() {}

  /**
   * The message as a line without a line end. A character that a field of the header cannot have is
   * written as {@code _}, and a field that is too long is cut.
   */
  public static String write(SyslogMessage message) {
    StringBuilder out = new StringBuilder();
    out.append('<').append(message.facility() * 8 + message.severity()).append('>');
    out.append(VERSION).append(' ');
    out.append(message.at() == null ? NIL : message.at().truncatedTo(ChronoUnit.MICROS));
    field(out, message.host(), MOST_HOST);
    field(out, message.app(), MOST_APP);
    field(out, message.process(), MOST_PROCESS);
    field(out, message.id(), MOST_ID);
    out.append(' ');
    if (message.data().isEmpty()) {
      out.append(NIL);
    }
    message.data().forEach(element -> element(out, element));
    if (!message.text().isEmpty()) {
      out.append(' ').append(message.text().replace('\n', ' '));
    }
    return out.toString();
  }

  /** The message alone, as it fills a datagram (RFC 5426, section 3.1). */
  public static byte[] bytes(SyslogMessage message) {
    return write(message).getBytes(StandardCharsets.UTF_8);
  }

  /**
   * The message with octet counting: its length in bytes, a space, and itself (RFC 6587, 3.4.1).
   */
  public static byte[] frame(SyslogMessage message) {
    byte[] line = bytes(message);
    byte[] length = (line.length + " ").getBytes(StandardCharsets.US_ASCII);
    byte[] out = new byte[length.length + line.length];
    System.arraycopy(length, 0, out, 0, length.length);
    System.arraycopy(line, 0, out, length.length, line.length);
    return out;
  }

  private static void field(StringBuilder out, String text, int most) {
    out.append(' ');
    if (text == null || text.isEmpty()) {
      out.append(NIL);
      return;
    }
    for (int i = 0; i < Math.min(text.length(), most); i++) {
      char c = text.charAt(i);
      out.append(c > ' ' && c < 127 ? c : '_');
    }
  }

  private static void element(StringBuilder out, Element element) {
    out.append('[').append(element.id());
    for (Parameter parameter : element.parameters()) {
      out.append(' ').append(parameter.name()).append("=\"");
      for (int i = 0; i < parameter.value().length(); i++) {
        char c = parameter.value().charAt(i);
        if (c == '"' || c == '\\' || c == ']') {
          out.append('\\');
        }
        out.append(c == '\n' ? ' ' : c);
      }
      out.append('"');
    }
    out.append(']');
  }
}
