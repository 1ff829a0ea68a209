package dev.ironsieve.server.catalogue;

import dev.ironsieve.server.jdbc.Sql;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

/** SQL about editions of the catalogue. */
final class EditionStore {
  private EditionStore() {}

  /**
   * @param by who imported it; null for the demo's
   */
  record Row(long id, String name, Instant importedAt, String by) {}

  /** Newest first. */
  static List<Row> all(Sql sql) throws SQLException {
    return sql.list(
        "select e.id, e.name, e.imported_at, a.display_name from catalogue_edition e"
            + " left join account a on a.id = e.imported_by order by e.id desc",
        row ->
            new Row(
                row.getLong("id"),
                row.getString("name"),
                row.getTimestamp("imported_at").toInstant(),
                row.getString("display_name")));
  }

  static Optional<String> content(Sql sql, String name) throws SQLException {
    return sql.first(
        "select content from catalogue_edition where lower(name) = lower(?)",
        row -> row.getString("content"),
        name);
  }

  /** The new edition's id, or nothing if there is one of that name. */
  static Optional<Long> add(Sql sql, String name, String content, byte[] digest, Long account)
      throws SQLException {
    return sql.first(
        "insert into catalogue_edition (name, content, digest, imported_by) values (?, ?, ?, ?)"
            + " on conflict do nothing returning id",
        row -> row.getLong("id"),
        name,
        content,
        digest,
        account);
  }
}
