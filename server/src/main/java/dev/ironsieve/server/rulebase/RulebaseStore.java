package dev.ironsieve.server.rulebase;

import dev.ironsieve.server.jdbc.CommonId;
import dev.ironsieve.server.jdbc.Sql;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;

/** SQL about rulebases and revisions. */
final class RulebaseStore {
  private RulebaseStore() {}

  static List<StoredRulebase> all(Sql sql) throws SQLException {
    return sql.list(
        "select b.id, b.name, b.kind, c.name as common, d.base_revision from rulebase b"
            + " join draft d on d.rulebase_id = b.id"
            + " left join rulebase c on c.id = d.common_id order by b.id",
        row ->
            new StoredRulebase(
                row.getLong("id"),
                row.getString("name"),
                row.getString("kind"),
                row.getString("common"),
                row.getInt("base_revision")));
  }

  /**
   * A rulebase to be added.
   *
   * @param common name of the common rulebase that it is below, or null
   * @param account id of who adds it, or null
   */
  record New(
      String name, String kind, String content, byte[] digest, String common, Long account) {}

  /** The new rulebase's id, or nothing if there is one of that name. */
  static Optional<Long> add(Sql sql, New next) throws SQLException {
    Optional<Long> id =
        sql.first(
            "insert into rulebase (name, kind, created_by) values (?, ?, ?)"
                + " on conflict do nothing returning id",
            row -> row.getLong("id"),
            next.name(),
            next.kind(),
            next.account());
    if (id.isPresent()) {
      sql.change(
          "insert into revision (rulebase_id, number, content, digest, created_by, common_id)"
              + " values (?, 1, ?, ?, ?, "
              + CommonId.BY_NAME
              + ")",
          id.get(),
          next.content(),
          next.digest(),
          next.account(),
          next.common());
      sql.change(
          "insert into draft (rulebase_id, base_revision, version, common_id) values (?, 1, 0, "
              + CommonId.BY_NAME
              + ")",
          id.get(),
          next.common());
    }
    return id;
  }
}
