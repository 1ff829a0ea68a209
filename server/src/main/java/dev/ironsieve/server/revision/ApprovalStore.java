package dev.ironsieve.server.revision;

import dev.ironsieve.server.jdbc.Sql;
import java.sql.SQLException;
import java.time.Instant;
import java.util.Optional;

/** SQL about requests to publish. */
final class ApprovalStore {
  private ApprovalStore() {}

  /** A request's row. */
  record Stored(
      long version,
      byte[] digest,
      long account,
      String by,
      String byName,
      String note,
      String overrideReason,
      Instant at) {}

  static boolean fourEyes(Sql sql, long rulebase) throws SQLException {
    return sql.first(
            "select four_eyes from rulebase where id = ?",
            row -> row.getBoolean("four_eyes"),
            rulebase)
        .orElse(false);
  }

  static void setFourEyes(Sql sql, long rulebase, boolean fourEyes) throws SQLException {
    sql.change("update rulebase set four_eyes = ? where id = ?", fourEyes, rulebase);
  }

  static Optional<Stored> request(Sql sql, long rulebase) throws SQLException {
    return sql.first(
        "select r.*, a.name, a.display_name from publish_request r"
            + " join account a on a.id = r.account_id where r.rulebase_id = ?",
        row ->
            new Stored(
                row.getLong("version"),
                row.getBytes("digest"),
                row.getLong("account_id"),
                row.getString("name"),
                row.getString("display_name"),
                row.getString("note"),
                row.getString("override_reason"),
                Sql.instant(row, "at")),
        rulebase);
  }

  /** Stores a request; it takes the place of an earlier one. */
  static void put(Sql sql, RevisionStore.Next next) throws SQLException {
    delete(sql, next.rulebase());
    sql.change(
        "insert into publish_request (rulebase_id, version, digest, account_id, note,"
            + " override_reason) values (?, ?, ?, ?, ?, ?)",
        next.rulebase(),
        next.version(),
        next.digest(),
        next.account(),
        next.note(),
        next.overrideReason());
  }

  static boolean delete(Sql sql, long rulebase) throws SQLException {
    return sql.change("delete from publish_request where rulebase_id = ?", rulebase) > 0;
  }
}
