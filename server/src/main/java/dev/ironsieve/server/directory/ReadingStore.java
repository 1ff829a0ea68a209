package dev.ironsieve.server.directory;

import dev.ironsieve.server.jdbc.Sql;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Optional;

/** SQL about attempts to read the directory. */
public final class ReadingStore {
  private ReadingStore() {}

  static DirectoryReading add(Sql sql, Long account, String snapshot, String fault)
      throws SQLException {
    return sql.first(
            "insert into directory_reading (by, snapshot, fault) values (?, ?, ?)"
                + " returning at, snapshot, fault",
            ReadingStore::row,
            account,
            snapshot,
            fault)
        .orElseThrow();
  }

  static Optional<DirectoryReading> last(Sql sql, boolean succeeded) throws SQLException {
    return sql.first(
        "select at, snapshot, fault from directory_reading where snapshot is not null or not ?"
            + " order by id desc limit 1",
        ReadingStore::row,
        succeeded);
  }

  private static DirectoryReading row(ResultSet row) throws SQLException {
    return new DirectoryReading(
        Sql.instant(row, "at"), row.getString("snapshot"), row.getString("fault"));
  }
}
