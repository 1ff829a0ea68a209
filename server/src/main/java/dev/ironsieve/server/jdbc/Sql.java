package dev.ironsieve.server.jdbc;

import java.io.IOException;
import java.io.StringReader;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.postgresql.PGConnection;

/** Runs the statements of one transaction. */
public final class Sql {
  private final Connection connection;

  Sql(Connection connection) {
    this.connection = connection;
  }

  /** Makes a value of one row. */
  public interface Row<T> {
    T read(ResultSet row) throws SQLException;
  }

  public <T> List<T> list(String sql, Row<T> mapper, Object... values) throws SQLException {
    try (PreparedStatement statement = prepared(sql, values);
        ResultSet rows = statement.executeQuery()) {
      List<T> out = new ArrayList<>();
      while (rows.next()) {
        out.add(mapper.read(rows));
      }
      return out;
    }
  }

  /** The first row, if there is one. */
  public <T> Optional<T> first(String sql, Row<T> mapper, Object... values) throws SQLException {
    List<T> rows = list(sql, mapper, values);
    return rows.isEmpty() ? Optional.empty() : Optional.of(rows.getFirst());
  }

  /** Runs a statement and returns the number of rows that it changed. */
  public int change(String sql, Object... values) throws SQLException {
    try (PreparedStatement statement = prepared(sql, values)) {
      return statement.executeUpdate();
    }
  }

  /**
   * Copies rows into a table; much quicker than inserting them.
   *
   * @param sql {@code copy … from stdin} in the text format
   */
  public void copy(String sql, CopyRows rows) throws SQLException {
    try {
      connection
          .unwrap(PGConnection.class)
          .getCopyAPI()
          .copyIn(sql, new StringReader(rows.toString()));
    } catch (IOException e) {
      throw new SQLException("copying rows", e);
    }
  }

  /** An instant of a {@code timestamptz} column, or null. */
  public static Instant instant(ResultSet row, String column) throws SQLException {
    OffsetDateTime time = row.getObject(column, OffsetDateTime.class);
    return time == null ? null : time.toInstant();
  }

  private PreparedStatement prepared(String sql, Object... values) throws SQLException {
    PreparedStatement statement = connection.prepareStatement(sql);
    for (int i = 0; i < values.length; i++) {
      Object value = values[i];
      switch (value) {
        case Instant instant ->
            statement.setObject(i + 1, OffsetDateTime.ofInstant(instant, ZoneOffset.UTC));
        case String[] texts -> statement.setArray(i + 1, connection.createArrayOf("text", texts));
        case Long[] numbers ->
            statement.setArray(i + 1, connection.createArrayOf("bigint", numbers));
        case null, default -> statement.setObject(i + 1, value);
      }
    }
    return statement;
  }
}
