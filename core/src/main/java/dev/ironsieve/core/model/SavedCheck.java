package dev.ironsieve.core.model;

/**
 * A saved check: a connection with its expected verdict, run after every change.
 *
 * @param connection a connection line; it may name objects that no longer exist
 * @param rule id of the rule that must decide; null if any may
 * @param protectedConnection whether the connection has to be let through also while the directory
 *     is away, when nobody counts as signed in; such as the way of administrators to the gateway
 */
public record SavedCheck(
    String name, String connection, Verdict expected, String rule, boolean protectedConnection) {
  /** Most checks of one rulebase. */
  public static final int MOST = 10_000;

  /** Most characters of a connection. */
  public static final int MAX_LINE = 1000;

  public SavedCheck {
    name = Names.checkTitle("check", name);
    boolean fits =
        connection != null
            && !connection.isBlank()
            && connection.length() <= MAX_LINE
            && Names.isPrintable(connection);
    if (!fits) {
      throw new InvalidModel(
          "check \"" + name + "\": connection",
          "1 to " + MAX_LINE + " characters on one line",
          Names.quoted(connection));
    }
    if (rule != null) {
      Names.checkId("rule", rule);
    }
    if (protectedConnection && !expected.letsThrough()) {
      throw new InvalidModel(
          "check \"" + name + "\": verdict",
          "one that lets a protected connection through",
          expected.word());
    }
  }

  /** A check of a connection that is not protected. */
  public SavedCheck(String name, String connection, Verdict expected, String rule) {
    this(name, connection, expected, rule, false);
  }

  /** The same check of a connection in another notation. */
  public SavedCheck of(String connection) {
    return new SavedCheck(name, connection, expected, rule, protectedConnection);
  }
}
