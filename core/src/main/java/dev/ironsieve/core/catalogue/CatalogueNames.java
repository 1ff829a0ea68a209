package dev.ironsieve.core.catalogue;

import dev.ironsieve.core.model.InvalidModel;
import java.util.regex.Pattern;

/** Checks the names of applications, features, categories and tags. */
final class CatalogueNames {
  // No colon, which stands between an application and its feature; no comma and no bracket, which
  // stand in lists.
  private static final Pattern NAME =
      Pattern.compile("[\\p{L}\\p{N}][\\p{L}\\p{N} ._&+'/-]{0,59}(?<! )");

  // RFC 1123, section 2.1, in lower case, with a leading "*." for everything below.
  private static final Pattern HOST =
      Pattern.compile(
          "(\\*\\.)?([a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?\\.)+[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?");
  private static final int MAX_HOST = 253;

  private CatalogueNames() {}

  static String check(String kind, String name) {
    if (name == null || !NAME.matcher(name).matches()) {
      throw new InvalidModel(
          kind + " name",
          "a letter or digit, then up to 59 letters, digits, spaces or . _ & + ' / -",
          found(name));
    }
    return name;
  }

  static void checkHost(String place, String host) {
    if (host == null || host.length() > MAX_HOST || !HOST.matcher(host).matches()) {
      throw new InvalidModel(place, "a host name in lower case, or one behind \"*.\"", found(host));
    }
  }

  static InvalidModel reserved(String kind, String name) {
    return new InvalidModel(kind + " name", "another name, since this one is taken", found(name));
  }

  static String found(String text) {
    if (text == null) {
      return "nothing";
    }
    return '"' + (text.length() > 100 ? text.substring(0, 100) + "…" : text) + '"';
  }
}
