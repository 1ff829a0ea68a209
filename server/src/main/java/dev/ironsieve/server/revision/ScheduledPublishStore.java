package dev.ironsieve.server.revision;

import dev.ironsieve.server.jdbc.Sql;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

/** SQL about publishes that wait for their time. */
final class ScheduledPublishStore {
  private ScheduledPublishStore() {}

  /**
   * A publish's row.
   *
   * @param mayPublish whether the account is there and still a publisher or an admin
   * @param failed why it did not happen; null while it waits
   */
  record Stored(
      long rulebase,
      long version,
      long account,
      String byName,
      boolean mayPublish,
      String note,
      String overrideReason,
      Instant due,
      String failed) {}

  private static final String ALL =
      "select s.*, a.display_name, not a.disabled and a.role in ('publisher', 'admin') as may_publish"
          + " from scheduled_publish s join account a on a.id = s.account_id ";

  static Optional<Stored> of(Sql sql, long rulebase) throws SQLException {
    return sql.first(ALL + "where s.rulebase_id = ?", ScheduledPublishStore::read, rulebase);
  }

  /** Those whose time has come. */
  static List<Stored> due(Sql sql, Instant now) throws SQLException {
    return sql.list(
        ALL + "where s.due <= ? and s.failed is null order by s.due",
        ScheduledPublishStore::read,
        now);
  }

  private static Stored read(ResultSet row) throws SQLException {
    return new Stored(
        row.getLong("rulebase_id"),
        row.getLong("version"),
        row.getLong("account_id"),
        row.getString("display_name"),
        row.getBoolean("may_publish"),
        row.getString("note"),
        row.getString("override_reason"),
        Sql.instant(row, "due"),
        row.getString("failed"));
  }

  /** Stores a publish in place of an earlier one. */
  static void put(
      Sql sql,
      long rulebase,
      long version,
      long account,
      String note,
      String overrideReason,
      Instant due)
      throws SQLException {
    delete(sql, rulebase);
    sql.change(
        "insert into scheduled_publish (rulebase_id, version, account_id, note, override_reason,"
            + " due) values (?, ?, ?, ?, ?, ?)",
        rulebase,
        version,
        account,
        note,
        overrideReason,
        due);
  }

  static boolean delete(Sql sql, long rulebase) throws SQLException {
    return sql.change("delete from scheduled_publish where rulebase_id = ?", rulebase) > 0;
  }

  /** Keeps why a publish did not happen; false if it is no longer there, or another. */
  static boolean fail(Sql sql, Stored publish, String why) throws SQLException {
    return sql.change(
            "update scheduled_publish set failed = ?"
                + " where rulebase_id = ? and due = ? and failed is null",
            why,
            publish.rulebase(),
            publish.due())
        > 0;
  }
}
