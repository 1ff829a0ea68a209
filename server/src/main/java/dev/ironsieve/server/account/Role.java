package dev.ironsieve.server.account;

import dev.ironsieve.server.refusal.Refusal;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.Locale;
import java.util.Set;

/** The role of an account; each role includes the rights of those before it. */
public enum Role {
  VIEWER,
  EDITOR,
  PUBLISHER,
  ADMIN;

  /** The words of the roles, for annotations. */
  public static final String MAY_VIEW = "viewer";

  public static final String MAY_EDIT = "editor";
  public static final String MAY_PUBLISH = "publisher";
  public static final String MAY_ADMINISTER = "admin";

  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }

  /** This role's word and those of all that it includes. */
  Set<String> included() {
    Set<String> out = new LinkedHashSet<>();
    for (Role role : values()) {
      if (role.compareTo(this) <= 0) {
        out.add(role.word());
      }
    }
    return out;
  }

  static Role parse(String word) {
    return Arrays.stream(values())
        .filter(role -> role.word().equals(word))
        .findFirst()
        .orElseThrow(
            () -> new Refusal.Invalid("$.role", "viewer, editor, publisher or admin", word));
  }
}
