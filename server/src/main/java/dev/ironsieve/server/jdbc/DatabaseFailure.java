package dev.ironsieve.server.jdbc;

import java.sql.SQLException;

/** Thrown if a statement of the database failed; has its purpose. */
public final class DatabaseFailure extends RuntimeException {
  /**
   * @param purpose what the statements were for
   */
  public DatabaseFailure(String purpose, SQLException cause) {
    super(purpose + " failed: " + cause.getMessage(), cause);
  }
}
