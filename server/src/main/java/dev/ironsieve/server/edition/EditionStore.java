package dev.ironsieve.server.edition;

import dev.ironsieve.formats.Digest;
import dev.ironsieve.server.jdbc.Sql;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;

/** SQL about the editions of one source. */
public final class EditionStore {
  private final String list;
  private final String content;
  private final String add;

  /**
   * @param table one whose columns are those of {@code catalogue_edition}
   */
  EditionStore(String table) {
    list =
        "select e.id, e.name, e.imported_at, a.display_name from "
            + table
            + " e left join account a on a.id = e.imported_by order by e.id desc";
    content = "select content from " + table + " where lower(name) = lower(?)";
    add =
        "insert into "
            + table
            + " (name, content, digest, imported_by) values (?, ?, ?, ?)"
            + " on conflict do nothing returning id";
  }

  /** Newest first. */
  List<StoredEdition> all(Sql sql) throws SQLException {
    return sql.list(
        list,
        row ->
            new StoredEdition(
                row.getLong("id"),
                row.getString("name"),
                row.getTimestamp("imported_at").toInstant(),
                row.getString("display_name")));
  }

  Optional<String> content(Sql sql, String name) throws SQLException {
    return sql.first(content, row -> row.getString("content"), name);
  }

  /** The new edition's id, or nothing if there is one of that name. */
  Optional<Long> add(Sql sql, String name, String content, Long account) throws SQLException {
    return sql.first(add, row -> row.getLong("id"), name, content, Digest.of(content), account);
  }
}
