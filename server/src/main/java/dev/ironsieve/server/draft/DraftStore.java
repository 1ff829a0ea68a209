package dev.ironsieve.server.draft;

import dev.ironsieve.server.jdbc.CommonId;
import dev.ironsieve.server.jdbc.Sql;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

/** SQL about drafts and their changes. */
final class DraftStore {
  private DraftStore() {}

  /** A draft's row. */
  record Row(long id, String name, int revision, long version) {}

  /**
   * All that a draft is derived from.
   *
   * @param content the document of its revision or, newer, of a snapshot
   * @param contentVersion the version that the content has; 0 for the revision
   * @param changes those since, oldest first
   * @param inForce how many edits are in force
   */
  record Stored(Row row, String content, long contentVersion, List<Change> changes, int inForce) {}

  /**
   * A change's row.
   *
   * @param of the version that an undo or redo applies to, or 0
   * @param client the page that made it, or null
   * @param requestKey identifies a request that is sent twice, or null
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
      String client,
      String requestKey) {}

  private static final String CHANGES =
      "select c.*, a.name as account_name, a.display_name from change c"
          + " join account a on a.id = c.account_id ";

  /** Holds for an edit that an undo took back and no redo brought again. */
  private static final String UNDONE =
      " coalesce((select k.kind from change k where k.rulebase_id = c.rulebase_id"
          + " and k.of_version = c.version order by k.version desc limit 1), 'redo') = 'undo' ";

  /** A draft, from its newest snapshot on; nothing if there is no such rulebase. */
  static Optional<Stored> load(Sql sql, long rulebase) throws SQLException {
    Optional<Row> row =
        sql.first(
            "select b.id, b.name, d.base_revision, d.version from draft d"
                + " join rulebase b on b.id = d.rulebase_id where d.rulebase_id = ?",
            r ->
                new Row(
                    r.getLong("id"),
                    r.getString("name"),
                    r.getInt("base_revision"),
                    r.getLong("version")),
            rulebase);
    return row.isEmpty() ? Optional.empty() : Optional.of(load(sql, row.get()));
  }

  private record Content(String text, long version) {}

  private static Stored load(Sql sql, Row row) throws SQLException {
    Content content =
        sql.first(
                "select content, version from draft_snapshot where rulebase_id = ?"
                    + " and base_revision = ? and version <= ? order by version desc limit 1",
                r -> new Content(r.getString("content"), r.getLong("version")),
                row.id(),
                row.revision(),
                row.version())
            .orElse(null);
    if (content == null) {
      content =
          sql.first(
                  "select content from revision where rulebase_id = ? and number = ?",
                  r -> new Content(r.getString("content"), 0),
                  row.id(),
                  row.revision())
              .orElseThrow();
    }
    List<Change> changes =
        sql.list(
            CHANGES
                + " where c.rulebase_id = ? and c.base_revision = ? and c.version > ?"
                + " and c.version <= ? order by c.version",
            DraftStore::readChange,
            row.id(),
            row.revision(),
            content.version(),
            row.version());
    int inForce =
        sql.first(
                "select coalesce(sum(case kind when 'undo' then -1 else 1 end), 0) as n"
                    + " from change where rulebase_id = ? and base_revision = ? and version <= ?",
                r -> r.getInt("n"),
                row.id(),
                row.revision(),
                row.version())
            .orElse(0);
    return new Stored(row, content.text(), content.version(), changes, inForce);
  }

  /** Stores the state of a draft at a version, and forgets all older ones but one. */
  static void addSnapshot(Sql sql, long rulebase, int revision, long version, String content)
      throws SQLException {
    sql.change(
        "insert into draft_snapshot (rulebase_id, version, base_revision, content)"
            + " values (?, ?, ?, ?) on conflict do nothing",
        rulebase,
        version,
        revision,
        content);
    sql.change(
        "delete from draft_snapshot where rulebase_id = ? and version < (select min(version) from"
            + " (select version from draft_snapshot where rulebase_id = ?"
            + " order by version desc limit 2) newest)",
        rulebase,
        rulebase);
  }

  /**
   * The changes behind a version that touch one of some things and are not one's own, oldest first.
   *
   * @param client whose changes are one's own, or null
   * @param account whose changes are one's own, or 0
   */
  static List<Change> touching(
      Sql sql, long rulebase, long since, String[] touched, String client, long account)
      throws SQLException {
    return sql.list(
        CHANGES
            + " where c.rulebase_id = ? and c.version > ? and c.touched && ?"
            + " and (?::text is null or c.client is distinct from ?)"
            + " and c.account_id <> ? order by c.version",
        DraftStore::readChange,
        rulebase,
        since,
        touched,
        client,
        client,
        account);
  }

  /** The last change of something, by its key. */
  static Optional<Change> lastTouching(Sql sql, long rulebase, String key) throws SQLException {
    return sql.first(
        CHANGES + " where c.rulebase_id = ? and c.touched @> ? order by c.version desc limit 1",
        DraftStore::readChange,
        rulebase,
        new String[] {key});
  }

  /** The account's last edit that is in force. */
  static Optional<Change> toUndo(Sql sql, long rulebase, int revision, long account)
      throws SQLException {
    return sql.first(
        CHANGES
            + " where c.rulebase_id = ? and c.base_revision = ? and c.account_id = ?"
            + " and c.kind = 'edit' and not "
            + UNDONE
            + " order by c.version desc limit 1",
        DraftStore::readChange,
        rulebase,
        revision,
        account);
  }

  /** The last edit of anybody that is in force. */
  static Optional<Change> lastInForce(Sql sql, long rulebase, int revision) throws SQLException {
    return sql.first(
        CHANGES
            + " where c.rulebase_id = ? and c.base_revision = ? and c.kind = 'edit' and not"
            + UNDONE
            + " order by c.version desc limit 1",
        DraftStore::readChange,
        rulebase,
        revision);
  }

  /** Every edit since a revision that is in force, the oldest first. */
  static List<Change> inForce(Sql sql, long rulebase, int revision) throws SQLException {
    return sql.list(
        CHANGES
            + " where c.rulebase_id = ? and c.base_revision = ? and c.kind = 'edit' and not"
            + UNDONE
            + " order by c.version",
        DraftStore::readChange,
        rulebase,
        revision);
  }

  /**
   * Keeps which common rulebase a draft is below.
   *
   * @param name of the common rulebase, or null for none
   */
  static void setCommon(Sql sql, long rulebase, String name) throws SQLException {
    sql.change(
        "update draft set common_id = " + CommonId.BY_NAME + " where rulebase_id = ?",
        name,
        rulebase);
  }

  /** The account's edit that it undid last, unless it has made another edit since. */
  static Optional<Change> toRedo(Sql sql, long rulebase, int revision, long account)
      throws SQLException {
    return sql.first(
        CHANGES
            + " join lateral (select max(u.version) as undo from change u"
            + " where u.rulebase_id = c.rulebase_id and u.of_version = c.version) last on true"
            + " where c.rulebase_id = ? and c.base_revision = ? and c.account_id = ?"
            + " and c.kind = 'edit' and"
            + UNDONE
            + " and not exists (select 1 from change e where e.rulebase_id = c.rulebase_id"
            + " and e.account_id = c.account_id and e.kind = 'edit' and e.version > last.undo)"
            + " order by last.undo desc limit 1",
        DraftStore::readChange,
        rulebase,
        revision,
        account);
  }

  /** The change that a request made which may be sent twice. */
  static Optional<Change> byRequest(Sql sql, long rulebase, long account, String requestKey)
      throws SQLException {
    return sql.first(
        CHANGES + " where c.rulebase_id = ? and c.account_id = ? and c.request_key = ?",
        DraftStore::readChange,
        rulebase,
        account,
        requestKey);
  }

  /** Up to {@code limit} changes before version {@code before}, newest first. */
  static List<Change> history(Sql sql, long rulebase, long before, int limit) throws SQLException {
    return sql.list(
        CHANGES + " where c.rulebase_id = ? and c.version < ?" + " order by c.version desc limit ?",
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
        row.getString("client"),
        row.getString("request_key"));
  }

  /** Moves to the next version; false if the draft is no longer at {@code from}. */
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
            + " touched, account_id, made_at, client, request_key)"
            + " values (?, ?, ?, ?, ?, ?::jsonb, ?::jsonb, ?, ?, ?, ?, ?)",
        rulebase,
        change.version(),
        revision,
        change.kind(),
        change.of() == 0 ? null : change.of(),
        change.edit(),
        change.inverse(),
        change.touched(),
        change.account(),
        change.at(),
        change.client(),
        change.requestKey());
  }
}
