package dev.ironsieve.server.rulebase;

import dev.ironsieve.server.jdbc.Sql;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;

/** SQL about rulebases and revisions. */
final class RulebaseStore {
  private RulebaseStore() {}

  static List<StoredRulebase> all(Sql sql) throws SQLException {
    return sql.list(
        "select b.id, b.name, d.base_revision from rulebase b"
            + " join draft d on d.rulebase_id = b.id order by b.id",
        row ->
            new StoredRulebase(
                row.getLong("id"), row.getString("name"), row.getInt("base_revision")));
  }

  /** The new rulebase's id, or nothing if there is one of that name. */
  static Optional<Long> add(Sql sql, String name, String content, byte[] digest, Long account)
      throws SQLException {
    Optional<Long> id =
        sql.first(
            "insert into rulebase (name, created_by) values (?, ?)"
                + " on conflict do nothing returning id",
            row -> row.getLong("id"),
            name,
            account);
    if (id.isPresent()) {
      sql.change(
          "insert into revision (rulebase_id, number, content, digest, created_by)"
              + " values (?, 1, ?, ?, ?)",
          id.get(),
          content,
          digest,
          account);
      sql.change(
          "insert into draft (rulebase_id, base_revision, version) values (?, 1, 0)", id.get());
    }
    return id;
  }
}
