package dev.ironsieve.core.model;

import java.util.List;

/**
 * A saved check: a connection, or a set of them, with the expected verdict; run after every change.
 *
 * <p>A connection that begins with {@value #SET} is a set: a reach question whose connections all
 * have to get the verdict. Of a set {@code allow} means that all are let through, with or without
 * caution, and {@code drop} that all are refused, silently or not.
 *
 * @param connection a connection line, or {@value #SET} and a reach question; it may name objects
 *     that no longer exist
 * @param rule id of the rule that must decide; null if any may
 * @param protectedConnection whether the connection has to be let through also while the directory
 *     is away, when nobody counts as signed in; such as the way of administrators to the gateway
 * @param group the heading under which it stands; empty for none
 * @param tags words to find it by, each once
 */
public record SavedCheck(
    String name,
    String connection,
    Verdict expected,
    String rule,
    boolean protectedConnection,
    String group,
    List<String> tags) {
  /** The word that begins a set of connections. */
  public static final String SET = "all";

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
    group = group.strip();
    if (group.length() > Names.MAX_NAME || !Names.isPrintable(group)) {
      throw new InvalidModel(
          "check \"" + name + "\": group",
          "at most " + Names.MAX_NAME + " characters on one line",
          Names.quoted(group));
    }
    tags = Ownership.tags(tags);
    if (isSet(connection)
        && (rule != null
            || protectedConnection
            || expected != Verdict.ALLOW && expected != Verdict.DROP)) {
      throw new InvalidModel(
          "check \"" + name + "\"",
          "allow or drop for a set of connections, which names no rule and is not protected",
          expected.word());
    }
    if (protectedConnection && !expected.letsThrough()) {
      throw new InvalidModel(
          "check \"" + name + "\": verdict",
          "one that lets a protected connection through",
          expected.word());
    }
  }

  /** A check of a connection that is not protected, in no group. */
  public SavedCheck(String name, String connection, Verdict expected, String rule) {
    this(name, connection, expected, rule, false, "", List.of());
  }

  /** Whether it is about a set of connections. */
  public boolean isSet() {
    return isSet(connection);
  }

  private static boolean isSet(String connection) {
    return connection.equals(SET) || connection.startsWith(SET + " ");
  }

  /** The reach question of a set. */
  public String question() {
    return connection.substring(SET.length()).strip();
  }

  /** The same check of a connection in another notation. */
  public SavedCheck of(String connection) {
    return new SavedCheck(name, connection, expected, rule, protectedConnection, group, tags);
  }

  /** The same check of the set of a reach question. */
  public SavedCheck ofSet(String question) {
    return of((SET + " " + question).strip());
  }
}
