package dev.ironsieve.server.accepted;

import dev.ironsieve.server.jdbc.Sql;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.List;

/** SQL about accepted findings. */
final class AcceptedFindingStore {
  private AcceptedFindingStore() {}

  /**
   * An acceptance, whether or not it still holds.
   *
   * @param digest of the rules that it was about
   */
  record Stored(AcceptedFinding finding, byte[] digest) {}

  static List<Stored> all(Sql sql, long rulebase) throws SQLException {
    return sql.list(
        "select f.*, a.display_name from accepted_finding f join account a on a.id = f.account_id"
            + " where f.rulebase_id = ?",
        row -> {
          String askAgain = row.getString("ask_again");
          return new Stored(
              new AcceptedFinding(
                  row.getString("rule"),
                  row.getString("kind"),
                  row.getString("reason"),
                  row.getString("display_name"),
                  Sql.instant(row, "at").toString(),
                  askAgain),
              row.getBytes("digest"));
        },
        rulebase);
  }

  static void put(
      Sql sql, long rulebase, NewAcceptance wanted, LocalDate askAgain, byte[] digest, long account)
      throws SQLException {
    sql.change(
        "insert into accepted_finding (rulebase_id, rule, kind, digest, account_id, reason,"
            + " ask_again) values (?, ?, ?, ?, ?, ?, ?)"
            + " on conflict (rulebase_id, rule, kind) do update set digest = excluded.digest,"
            + " account_id = excluded.account_id, reason = excluded.reason,"
            + " ask_again = excluded.ask_again, at = now()",
        rulebase,
        wanted.rule(),
        wanted.kind(),
        digest,
        account,
        wanted.reason().strip(),
        askAgain);
  }

  /** Whether there was one. */
  static boolean delete(Sql sql, long rulebase, String rule, String kind) throws SQLException {
    return sql.change(
            "delete from accepted_finding where rulebase_id = ? and rule = ? and kind = ?",
            rulebase,
            rule,
            kind)
        == 1;
  }
}
