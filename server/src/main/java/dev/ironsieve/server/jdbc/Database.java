package dev.ironsieve.server.jdbc;

import jakarta.enterprise.context.ApplicationScoped;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.Set;
import javax.sql.DataSource;

/** Runs work in transactions. */
@ApplicationScoped
public class Database {
  /** Serialisation failure and deadlock: the only failures that a second try can mend. */
  private static final Set<String> WORTH_A_RETRY = Set.of("40001", "40P01");

  private static final int TRIES = 3;

  private final DataSource source;

  Database(DataSource source) {
    this.source = source;
  }

  /** Work on one transaction. */
  public interface Work<T> {
    T run(Sql sql) throws SQLException;
  }

  /**
   * Runs {@code work} in one transaction, which holds wholly or not at all.
   *
   * @param purpose what it is for, for the message if it fails
   */
  public <T> T inTransaction(String purpose, Work<T> work) {
    for (int attempt = 1; ; attempt++) {
      try {
        return once(work);
      } catch (SQLException e) {
        if (attempt == TRIES || !WORTH_A_RETRY.contains(String.valueOf(e.getSQLState()))) {
          throw new DatabaseFailure(purpose, e);
        }
      }
    }
  }

  private <T> T once(Work<T> work) throws SQLException {
    try (Connection connection = source.getConnection()) {
      connection.setAutoCommit(false);
      boolean done = false;
      try {
        T result = work.run(new Sql(connection));
        connection.commit();
        done = true;
        return result;
      } finally {
        if (!done) {
          connection.rollback();
        }
        connection.setAutoCommit(true);
      }
    }
  }
}
