package dev.ironsieve.server.audit;

import dev.ironsieve.server.jdbc.Sql;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;

/** SQL about the entries of the audit trail. */
final class AuditStore {
  private AuditStore() {}

  /**
   * Adds an entry.
   *
   * @param address of the client; null without one
   */
  static void add(
      Sql sql, String who, String address, AuditAction action, String subject, String detail)
      throws SQLException {
    sql.change(
        "insert into audit (who, address, action, subject, detail)"
            + " values (?, ?::inet, ?, ?, ?)",
        who,
        address,
        action.words(),
        subject,
        detail);
  }

  /**
   * Entries that fit, the newest first.
   *
   * @param text part of who, subject or detail; null for any
   * @param action in words; null for any
   * @param behind id of an entry; only older ones follow; null for the newest
   */
  static List<AuditEntry> find(Sql sql, String text, String action, Long behind, int most)
      throws SQLException {
    StringBuilder where = new StringBuilder("where true");
    List<Object> values = new ArrayList<>();
    if (action != null) {
      where.append(" and action = ?");
      values.add(action);
    }
    if (text != null && !text.isBlank()) {
      where.append(" and position(lower(?) in lower(who || ' ' || subject || ' ' || detail)) > 0");
      values.add(text.strip());
    }
    if (behind != null) {
      where.append(" and id < ?");
      values.add(behind);
    }
    values.add(most);
    return sql.list(
        "select id, at, who, host(address) as address, action, subject, detail from audit "
            + where
            + " order by id desc limit ?",
        AuditStore::entry,
        values.toArray());
  }

  private static AuditEntry entry(ResultSet row) throws SQLException {
    return new AuditEntry(
        row.getLong("id"),
        Sql.instant(row, "at").toString(),
        row.getString("who"),
        row.getString("address"),
        row.getString("action"),
        row.getString("subject"),
        row.getString("detail"));
  }
}
