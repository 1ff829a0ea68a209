package dev.ironsieve.server.jdbc;

/** The SQL that finds a common rulebase by its name. */
public final class CommonId {
  /** An expression for its id, with the name as its parameter; null if there is none. */
  public static final String BY_NAME =
      "(select id from rulebase where lower(name) = lower(?) and kind = 'common')";

  private CommonId() {}
}
