package dev.ironsieve.core.signature;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.DataFormatException;
import java.util.zip.Inflater;

/**
 * The beginning of the first message body of one side of an HTTP/1 connection (RFC 9112, sections 6
 * and 7), without its transfer coding and content coding (RFC 9110, section 8.4.1); of a form with
 * files (RFC 7578), the first file.
 *
 * @param bytes as far as captured
 * @param name of the file, or null
 * @param type its media type, or null
 */
record HttpBody(byte[] bytes, String name, String type) {
  private static final Pattern HEAD_END = Pattern.compile("\r?\n\r?\n");
  private static final Pattern STATUS = Pattern.compile("HTTP/1\\.[01] (\\d{3})[ \r\n]");
  private static final Pattern FILE_NAME =
      Pattern.compile("filename\\*?=(?:\"([^\"]*)\"|(?:[\\w-]*'[\\w-]*')?([^;\\s\"]+))");
  private static final Pattern BOUNDARY = Pattern.compile("boundary=\"?([^\";\\s]+)");
  private static final int MOST = Sight.MAX_BYTES;
  private static final int GZIP_HEAD = 10; // without a name, as it is sent (RFC 1952, section 2.3)

  /**
   * The body of a stream's first message; null if it has none.
   *
   * @param request whether the message is a request, else it is an answer
   */
  static HttpBody of(byte[] stream, boolean request) {
    String text = new String(stream, StandardCharsets.ISO_8859_1);
    int start = 0;
    if (!request) {
      Matcher status = STATUS.matcher(text);
      Matcher end = HEAD_END.matcher(text);
      while (status.region(start, text.length()).lookingAt() && status.group(1).startsWith("1")) {
        if (!end.find(start)) {
          return null;
        }
        start = end.end(); // of an answer that is not the last (RFC 9110, section 15.2)
      }
      if (!status.region(start, text.length()).lookingAt() || !status.group(1).startsWith("2")) {
        return null;
      }
    }
    Matcher end = HEAD_END.matcher(text);
    if (!end.find(start)) {
      return null;
    }
    Fields head = new Fields(text.substring(start, end.start()));
    byte[] bytes = Arrays.copyOfRange(stream, end.end(), stream.length);
    if (head.says("transfer-encoding", "chunked")) {
      bytes = unchunked(bytes);
    }
    bytes = decoded(bytes, head.get("content-encoding"));
    String type = head.get("content-type");
    if (bytes == null || bytes.length == 0) {
      return null;
    }
    if (type != null && type.toLowerCase(Locale.ROOT).startsWith("multipart/form-data")) {
      return firstFile(bytes, type);
    }
    return new HttpBody(bytes, fileName(head.get("content-disposition")), type);
  }

  /** The fields of a head, found by name. */
  private record Fields(String head) {
    /** Null if there is none. */
    String get(String name) {
      Matcher field = Pattern.compile("(?im)^" + name + ":([^\r\n]*)").matcher(head);
      return field.find() ? field.group(1).strip() : null;
    }

    boolean says(String name, String value) {
      String said = get(name);
      return said != null && said.toLowerCase(Locale.ROOT).contains(value);
    }
  }

  private static String fileName(String disposition) {
    Matcher name = disposition == null ? null : FILE_NAME.matcher(disposition);
    if (name == null || !name.find()) {
      return null;
    }
    return name.group(1) != null ? name.group(1) : name.group(2);
  }

  private static byte[] unchunked(byte[] bytes) {
    byte[] out = new byte[bytes.length];
    int length = 0;
    int at = 0;
    while (at < bytes.length) {
      int line = at;
      int size = 0;
      while (line < bytes.length && Character.digit(bytes[line], 16) >= 0 && size < MOST) {
        size = size * 16 + Character.digit(bytes[line++], 16);
      }
      while (line < bytes.length && bytes[line] != '\n') {
        line++;
      }
      int from = line + 1;
      int to = Math.min(bytes.length, from + size);
      if (size == 0 || from >= bytes.length) {
        break;
      }
      System.arraycopy(bytes, from, out, length, to - from);
      length += to - from;
      at = to + 2; // behind the line's end
    }
    return Arrays.copyOf(out, length);
  }

  /** Null for a coding that is not read here. */
  private static byte[] decoded(byte[] bytes, String coding) {
    if (coding == null || coding.equalsIgnoreCase("identity")) {
      return bytes;
    }
    boolean gzip = coding.equalsIgnoreCase("gzip") || coding.equalsIgnoreCase("x-gzip");
    if (!gzip && !coding.equalsIgnoreCase("deflate")) {
      return null;
    }
    int from = gzip ? GZIP_HEAD : 0;
    if (bytes.length <= from || gzip && bytes[3] != 0) {
      return null;
    }
    Inflater inflater = new Inflater(gzip);
    try {
      inflater.setInput(bytes, from, bytes.length - from);
      byte[] out = new byte[MOST];
      return Arrays.copyOf(out, inflater.inflate(out));
    } catch (DataFormatException e) {
      return null;
    } finally {
      inflater.end();
    }
  }

  private static HttpBody firstFile(byte[] bytes, String type) {
    Matcher boundary = BOUNDARY.matcher(type);
    if (!boundary.find()) {
      return null;
    }
    String text = new String(bytes, StandardCharsets.ISO_8859_1);
    String between = "--" + boundary.group(1);
    Matcher end = HEAD_END.matcher(text);
    for (int part = text.indexOf(between);
        part >= 0 && end.find(part);
        part = text.indexOf(between, end.end())) {
      Fields head = new Fields(text.substring(part, end.start()));
      String name = fileName(head.get("content-disposition"));
      if (name != null) {
        int next = text.indexOf("\r\n" + between, end.end());
        byte[] file = Arrays.copyOfRange(bytes, end.end(), next < 0 ? bytes.length : next);
        return file.length == 0 ? null : new HttpBody(file, name, head.get("content-type"));
      }
    }
    return null;
  }
}
