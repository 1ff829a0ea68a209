package dev.ironsieve.server.restore;

import dev.ironsieve.server.jdbc.Sql;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;

/** SQL about named states of drafts. */
final class NamedStateStore {
  private NamedStateStore() {}

  /** The newest first. */
  static List<NamedState> all(Sql sql, long rulebase) throws SQLException {
    return sql.list(
        "select s.*, a.display_name from named_state s join account a on a.id = s.account_id"
            + " where s.rulebase_id = ? order by s.at desc, s.name",
        row ->
            new NamedState(
                row.getString("name"),
                row.getLong("version"),
                row.getInt("base_revision"),
                row.getString("display_name"),
                Sql.instant(row, "at").toString()),
        rulebase);
  }

  /** Adds a state; false if its name is taken. */
  static boolean add(
      Sql sql, long rulebase, String name, long version, int revision, String content, long account)
      throws SQLException {
    return sql.change(
            "insert into named_state (rulebase_id, name, version, base_revision, content,"
                + " account_id) values (?, ?, ?, ?, ?, ?) on conflict do nothing",
            rulebase,
            name,
            version,
            revision,
            content,
            account)
        == 1;
  }

  static boolean delete(Sql sql, long rulebase, String name) throws SQLException {
    return sql.change(
            "delete from named_state where rulebase_id = ? and lower(name) = lower(?)",
            rulebase,
            name)
        == 1;
  }

  /** The document of a state. */
  static Optional<String> content(Sql sql, long rulebase, String name) throws SQLException {
    return sql.first(
        "select content from named_state where rulebase_id = ? and lower(name) = lower(?)",
        row -> row.getString("content"),
        rulebase,
        name);
  }
}
