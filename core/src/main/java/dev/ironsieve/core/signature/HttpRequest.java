package dev.ironsieve.core.signature;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;

/**
 * The first request of a connection in HTTP/1 (RFC 9112, sections 3 and 5), as far as it is seen.
 *
 * @param host from the target or the Host field, in lower case and without port; null if neither
 * @param path as sent, from the first slash on and without the query; {@code *} for all
 * @param fields {@code name: value}, names in lower case
 */
public record HttpRequest(String method, String host, String path, List<String> fields) {
  private static final Pattern METHOD = Pattern.compile("[A-Z][A-Z-]{1,19}");
  private static final Pattern VERSION = Pattern.compile("HTTP/1\\.[01]");

  /** Null if the stream does not begin with a whole request line. */
  static HttpRequest of(byte[] stream, int length) {
    // A method begins with a capital letter, which excludes most other streams at once.
    if (length < 14 || stream[0] < 'A' || stream[0] > 'Z') {
      return null;
    }
    String[] lines = new String(stream, 0, length, StandardCharsets.ISO_8859_1).split("\r?\n", -1);
    String[] parts = lines[0].split(" ");
    if (lines.length < 2
        || parts.length != 3
        || !METHOD.matcher(parts[0]).matches()
        || !VERSION.matcher(parts[2]).matches()) {
      return null;
    }
    List<String> fields = new ArrayList<>();
    String host = null;
    for (int i = 1; i < lines.length - 1 && !lines[i].isEmpty(); i++) {
      int colon = lines[i].indexOf(':');
      if (colon > 0) {
        String name = lines[i].substring(0, colon).toLowerCase(Locale.ROOT);
        String value = lines[i].substring(colon + 1).strip();
        fields.add(name + ": " + value);
        host = name.equals("host") && host == null ? value : host;
      }
    }
    String target = parts[1];
    int scheme = target.indexOf("://");
    if (scheme > 0) {
      int slash = target.indexOf('/', scheme + 3);
      host = target.substring(scheme + 3, slash < 0 ? target.length() : slash);
      target = slash < 0 ? "/" : target.substring(slash);
    } else if (parts[0].equals("CONNECT")) {
      host = target;
      target = "";
    }
    int query = target.indexOf('?');
    return new HttpRequest(
        parts[0],
        host == null ? null : withoutPort(host),
        query < 0 ? target : target.substring(0, query),
        List.copyOf(fields));
  }

  private static String withoutPort(String host) {
    int colon = host.lastIndexOf(':');
    boolean port = colon > 0 && host.indexOf(']', colon) < 0;
    return HostPattern.normal(port ? host.substring(0, colon) : host);
  }
}
