package dev.ironsieve.server.draft;

import dev.ironsieve.server.jdbc.Sql;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

/** SQL about drafts and their changes. */
final class DraftStore {
  private DraftStore() {}

  /** A draft's row with the content of its revision. */
  record Row(long id, String name, int revision, String content, long version) {}

  /**
   * A change's row.
   *
   * @param of the version that an undo or redo speaks of, or 0
   * @param client the page that made it, null once it was read from the store
   */
  record Change(
      long version,
      String kind,
      long of,
      String edit,
      String inverse,
      String[] touched,
      long account,
      String accountName,
      String by,
      Instant at,
      String client) {}

  static Optional<Row> draft(Sql sql, long rulebase) throws SQLException {
    return sql.first(
        "select b.id, b.name, d.base_revision, r.content, d.version from draft d"
            + " join rulebase b on b.id = d.rulebase_id"
            + " join revision r on r.rulebase_id = d.rulebase_id and r.number = d.base_revision"
            + " where d.rulebase_id = ?",
        row ->
            new Row(
                row.getLong("id"),
                row.getString("name"),
                row.getInt("base_revision"),
                row.getString("content"),
                row.getLong("version")),
        rulebase);
  }

  /** The changes behind version {@code after}, oldest first. */
  static List<Change> changesAfter(Sql sql, long rulebase, int revision, long after)
      throws SQLException {
    return sql.list(
        "select c.*, a.name as account_name, a.display_name from change c"
            + " join account a on a.id = c.account_id"
            + " where c.rulebase_id = ? and c.base_revision = ? and c.version > ?"
            + " order by c.version",
        DraftStore::readChange,
        rulebase,
        revision,
        after);
  }

  /** Up to {@code limit} changes before version {@code before}, newest first. */
  static List<Change> history(Sql sql, long rulebase, long before, int limit) throws SQLException {
    return sql.list(
        "select c.*, a.name as account_name, a.display_name from change c"
            + " join account a on a.id = c.account_id"
            + " where c.rulebase_id = ? and c.version < ?"
            + " order by c.version desc limit ?",
        DraftStore::readChange,
        rulebase,
        before,
        limit);
  }

  private static Change readChange(ResultSet row) throws SQLException {
    return new Change(
        row.getLong("version"),
        row.getString("kind"),
        row.getLong("of_version"),
        row.getString("edit"),
        row.getString("inverse"),
        (String[]) row.getArray("touched").getArray(),
        row.getLong("account_id"),
        row.getString("account_name"),
        row.getString("display_name"),
        Sql.instant(row, "made_at"),
        null);
  }

  /** Takes the next version; false if the draft is no longer at {@code from}. */
  static boolean advance(Sql sql, long rulebase, long from) throws SQLException {
    return sql.change(
            "update draft set version = version + 1 where rulebase_id = ? and version = ?",
            rulebase,
            from)
        == 1;
  }

  static void add(Sql sql, long rulebase, int revision, Change change) throws SQLException {
    sql.change(
        "insert into change (rulebase_id, version, base_revision, kind, of_version, edit, inverse,"
            + " touched, account_id, made_at)"
            + " values (?, ?, ?, ?, ?, ?::jsonb, ?::jsonb, ?, ?, ?)",
        rulebase,
        change.version(),
        revision,
        change.kind(),
        change.of() == 0 ? null : change.of(),
        change.edit(),
        change.inverse(),
        change.touched(),
        change.account(),
        change.at());
  }
}
