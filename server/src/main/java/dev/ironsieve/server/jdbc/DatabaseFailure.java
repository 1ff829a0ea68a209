package dev.ironsieve.server.jdbc;

import java.sql.SQLException;

/** The database did not do what it was asked. */
public final class DatabaseFailure extends RuntimeException {
  /**
   * @param purpose what the statements were for
   */
  public DatabaseFailure(String purpose, SQLException cause) {
    super(purpose + " failed: " + cause.getMessage(), cause);
  }
}
