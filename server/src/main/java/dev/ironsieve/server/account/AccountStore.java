package dev.ironsieve.server.account;

import dev.ironsieve.server.jdbc.Sql;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

/** SQL about accounts, sessions and failed sign-ins. */
final class AccountStore {
  private static final String COLUMNS =
      "select a.id, a.name, a.display_name, a.role, a.disabled, a.password_hash from account a ";

  private AccountStore() {}

  record Secret(Account account, String passwordHash) {}

  private static Secret read(ResultSet row) throws SQLException {
    return new Secret(
        new Account(
            row.getLong("id"),
            row.getString("name"),
            row.getString("display_name"),
            Role.parse(row.getString("role")),
            row.getBoolean("disabled")),
        row.getString("password_hash"));
  }

  static List<Account> all(Sql sql) throws SQLException {
    return sql.list(COLUMNS + "order by lower(a.name)", row -> read(row).account());
  }

  static Optional<Secret> byName(Sql sql, String name) throws SQLException {
    return sql.first(COLUMNS + "where lower(a.name) = lower(?)", AccountStore::read, name);
  }

  /** Whether an account exists; disabled demo accounts do not count. */
  static boolean any(Sql sql) throws SQLException {
    return sql.first("select 1 from account where not (demo and disabled) limit 1", row -> true)
        .isPresent();
  }

  static Account add(Sql sql, String name, String displayName, Role role, String passwordHash)
      throws SQLException {
    return sql.first(
            "insert into account (name, display_name, role, password_hash) values (?, ?, ?, ?)"
                + " on conflict do nothing"
                + " returning id, name, display_name, role, disabled, password_hash",
            row -> read(row).account(),
            name,
            displayName,
            role.word(),
            passwordHash)
        .orElse(null);
  }

  static void markAsDemo(Sql sql, long id) throws SQLException {
    sql.change("update account set demo = true where id = ?", id);
  }

  /** Enables or disables all accounts of the demo, whose sessions end then. */
  static void allowDemo(Sql sql, boolean allowed) throws SQLException {
    sql.change("update account set disabled = ? where demo", !allowed);
    if (!allowed) {
      sql.change("delete from session where account_id in (select id from account where demo)");
    }
  }

  static void setRole(Sql sql, long id, Role role) throws SQLException {
    sql.change("update account set role = ? where id = ?", role.word(), id);
  }

  static void setDisabled(Sql sql, long id, boolean disabled) throws SQLException {
    sql.change("update account set disabled = ? where id = ?", disabled, id);
  }

  static void setPassword(Sql sql, long id, String passwordHash) throws SQLException {
    sql.change("update account set password_hash = ? where id = ?", passwordHash, id);
  }

  /** Whether an enabled admin other than {@code id} exists. */
  static boolean otherAdmin(Sql sql, long id) throws SQLException {
    return sql.first(
            "select 1 from account where role = 'admin' and not disabled and id <> ? limit 1",
            row -> true,
            id)
        .isPresent();
  }

  // Sessions

  static void addSession(Sql sql, byte[] tokenHash, long account, Instant expires)
      throws SQLException {
    sql.change("delete from session where expires_at < now()");
    sql.change(
        "insert into session (token_hash, account_id, expires_at) values (?, ?, ?)",
        tokenHash,
        account,
        expires);
  }

  static Optional<Account> bySession(Sql sql, byte[] tokenHash) throws SQLException {
    return sql.first(
        COLUMNS
            + "join session s on s.account_id = a.id"
            + " where s.token_hash = ? and s.expires_at > now() and not a.disabled",
        row -> read(row).account(),
        tokenHash);
  }

  static void endSession(Sql sql, byte[] tokenHash) throws SQLException {
    sql.change("delete from session where token_hash = ?", tokenHash);
  }

  static void endSessions(Sql sql, long account) throws SQLException {
    sql.change("delete from session where account_id = ?", account);
  }

  // Failed sign-ins

  static Optional<Instant> lockedUntil(Sql sql, String name) throws SQLException {
    return sql.first(
        "select locked_until from sign_in_failure where name = ? and locked_until > now()",
        row -> Sql.instant(row, "locked_until"),
        name);
  }

  /** Counts a failure; the {@code most}th locks the name until {@code until}. */
  static void countFailure(Sql sql, String name, int most, Instant until) throws SQLException {
    sql.change(
        "insert into sign_in_failure as f (name, failures) values (?, 1)"
            + " on conflict (name) do update set"
            + " failures = case when f.locked_until < now() then 1 else f.failures + 1 end,"
            + " locked_until = case when f.locked_until < now() then null"
            + " else f.locked_until end",
        name);
    sql.change(
        "update sign_in_failure set locked_until = ? where name = ? and failures >= ?",
        until,
        name,
        most);
  }

  static void forgetFailures(Sql sql, String name) throws SQLException {
    sql.change("delete from sign_in_failure where name = ?", name);
  }

  // The link for the first admin

  static void replaceSetupToken(Sql sql, byte[] tokenHash, Instant expires) throws SQLException {
    sql.change("delete from setup_token");
    sql.change(
        "insert into setup_token (token_hash, expires_at) values (?, ?)", tokenHash, expires);
  }

  static boolean hasSetupToken(Sql sql, byte[] tokenHash) throws SQLException {
    return sql.first(
            "select 1 from setup_token where token_hash = ? and expires_at > now()",
            row -> true,
            (Object) tokenHash)
        .isPresent();
  }

  static boolean takeSetupToken(Sql sql, byte[] tokenHash) throws SQLException {
    return sql.change(
            "delete from setup_token where token_hash = ? and expires_at > now()", tokenHash)
        > 0;
  }
}
