package dev.ironsieve.server.account;

import dev.ironsieve.server.refusal.Refusal;
import java.nio.charset.StandardCharsets;
import java.util.regex.Pattern;

/** One account. */
public record Account(long id, String name, String displayName, Role role, boolean disabled) {
  private static final Pattern NAME = Pattern.compile("[a-z][a-z0-9._-]{1,39}");
  private static final Pattern DISPLAY = Pattern.compile("[\\p{L}\\p{N} .,'&()-]{1,80}");
  private static final int SHORTEST = 12;
  private static final int LONGEST = 72; // bcrypt reads no more bytes than that

  static boolean isName(String name) {
    return name != null && NAME.matcher(name).matches();
  }

  static void checkNames(String name, String displayName) {
    if (!isName(name)) {
      throw new Refusal.Invalid(
          "$.name", "2 to 40 small letters, digits or . _ -, the first a letter", name);
    }
    if (displayName == null || !DISPLAY.matcher(displayName).matches() || displayName.isBlank()) {
      throw new Refusal.Invalid("$.displayName", "1 to 80 letters, digits or spaces", displayName);
    }
  }

  static void checkPassword(String password) {
    int bytes = password == null ? 0 : password.getBytes(StandardCharsets.UTF_8).length;
    if (password == null || password.length() < SHORTEST || bytes > LONGEST) {
      throw new Refusal.Invalid(
          "$.password",
          SHORTEST + " characters at least, " + LONGEST + " bytes at most",
          bytes + " bytes");
    }
  }
}
