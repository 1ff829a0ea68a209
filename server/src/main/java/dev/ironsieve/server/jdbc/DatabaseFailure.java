package dev.ironsieve.server.jdbc;

import java.sql.SQLException;

/** Thrown if a statement of the database failed; has its purpose. */
public final class DatabaseFailure extends RuntimeException {
  /** Classes of SQL states for a database that cannot be reached now, or has no resources. */
  private static final String AWAY = "08 53 57 58";

  /**
   * @param purpose what the statements were for
   */
  public DatabaseFailure(String purpose, SQLException cause) {
    super(purpose + " failed: " + cause.getMessage(), cause);
  }

  /** Whether the database was away, so that the same may succeed later. */
  public boolean isAway() {
    String state = ((SQLException) getCause()).getSQLState();
    return state == null || AWAY.contains(state.substring(0, 2));
  }
}
