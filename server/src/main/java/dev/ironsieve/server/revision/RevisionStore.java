package dev.ironsieve.server.revision;

import dev.ironsieve.server.jdbc.CommonId;
import dev.ironsieve.server.jdbc.Sql;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;

/** SQL about revisions. */
final class RevisionStore {
  private RevisionStore() {}

  /** The revisions of a rulebase, newest first. */
  static List<StoredRevision> all(Sql sql, long rulebase) throws SQLException {
    return sql.list(
        "select r.number, r.digest, r.created_at, a.display_name, r.note, r.override_reason,"
            + " p.display_name as approver from revision r"
            + " left join account a on a.id = r.created_by"
            + " left join account p on p.id = r.approved_by"
            + " where r.rulebase_id = ? order by r.number desc",
        RevisionStore::read,
        rulebase);
  }

  private static StoredRevision read(ResultSet row) throws SQLException {
    return new StoredRevision(
        row.getInt("number"),
        row.getBytes("digest"),
        Sql.instant(row, "created_at"),
        row.getString("display_name"),
        row.getString("approver"),
        row.getString("note"),
        row.getString("override_reason"));
  }

  /** The document of a revision. */
  static Optional<String> content(Sql sql, long rulebase, int number) throws SQLException {
    return sql.first(
        "select content from revision where rulebase_id = ? and number = ?",
        row -> row.getString("content"),
        rulebase,
        number);
  }

  /** The name of a rulebase that exists. */
  static String rulebaseName(Sql sql, long rulebase) throws SQLException {
    return sql.first(
            "select name from rulebase where id = ?", row -> row.getString("name"), rulebase)
        .orElseThrow();
  }

  /**
   * A revision to be added.
   *
   * @param version of the draft that it is made from
   * @param common name of the common rulebase that it is below, or null
   * @param approver id of who approved it, or null
   */
  record Next(
      long rulebase,
      long version,
      String content,
      byte[] digest,
      String common,
      long account,
      Long approver,
      String note,
      String overrideReason) {}

  /**
   * Adds the next revision, and puts the draft on it.
   *
   * @return its number; empty if the draft is no longer at that version
   */
  static Optional<Integer> publish(Sql sql, Next next) throws SQLException {
    Optional<Integer> number =
        sql.first(
            "select base_revision + 1 as number from draft"
                + " where rulebase_id = ? and version = ? for update",
            row -> row.getInt("number"),
            next.rulebase(),
            next.version());
    if (number.isPresent()) {
      sql.change(
          "insert into revision (rulebase_id, number, content, digest, created_by,"
              + " approved_by, note, draft_version, override_reason, common_id)"
              + " values (?, ?, ?, ?, ?, ?, ?, ?, ?, "
              + CommonId.BY_NAME
              + ")",
          next.rulebase(),
          number.get(),
          next.content(),
          next.digest(),
          next.account(),
          next.approver(),
          next.note(),
          next.version(),
          next.overrideReason(),
          next.common());
      sql.change(
          "update draft set base_revision = ? where rulebase_id = ?",
          number.get(),
          next.rulebase());
    }
    return number;
  }
}
