package dev.ironsieve.server.common;

import dev.ironsieve.server.jdbc.Sql;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;

/** SQL about common rulebases and those below them. */
final class CommonStore {
  private CommonStore() {}

  /** The newest revision of a common rulebase. */
  record Newest(int number, String content) {}

  /** The rulebases whose draft or newest revision is directly below a common one, by name. */
  static List<Below> directlyBelow(Sql sql, long common) throws SQLException {
    return sql.list(
        "select b.id, b.name, b.kind, d.base_revision from draft d"
            + " join rulebase b on b.id = d.rulebase_id"
            + " join revision r on r.rulebase_id = d.rulebase_id and r.number = d.base_revision"
            + " where d.common_id = ? or r.common_id = ? order by lower(b.name)",
        row ->
            new Below(
                row.getLong("id"),
                row.getString("name"),
                row.getString("kind"),
                row.getInt("base_revision"),
                common),
        common,
        common);
  }

  /** Empty if there is no such rulebase, or it is not a common one. */
  static Optional<Newest> newest(Sql sql, long common) throws SQLException {
    return sql.first(
        "select r.number, r.content from draft d join rulebase b on b.id = d.rulebase_id"
            + " join revision r on r.rulebase_id = d.rulebase_id and r.number = d.base_revision"
            + " where d.rulebase_id = ? and b.kind = 'common'",
        row -> new Newest(row.getInt("number"), row.getString("content")),
        common);
  }

  /** The names of the gateways that follow a rulebase. */
  static List<String> gateways(Sql sql, long rulebase) throws SQLException {
    return sql.list(
        "select name from gateway where rulebase_id = ? and revoked_at is null order by lower(name)",
        row -> row.getString("name"),
        rulebase);
  }
}
