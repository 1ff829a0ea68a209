package dev.ironsieve.server.gateway;

import dev.ironsieve.server.jdbc.Sql;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;

/** SQL about gateways. */
final class GatewayStore {
  private GatewayStore() {}

  private static final String GATEWAYS =
      "select g.*, r.number as newest, r.digest from gateway g"
          + " join draft d on d.rulebase_id = g.rulebase_id"
          + " left join rollout o on o.rulebase_id = g.rulebase_id"
          + " and o.revision = d.base_revision and g.id <> all (o.first)"
          + " join revision r on r.rulebase_id = d.rulebase_id"
          + " and r.number = coalesce(o.previous, d.base_revision) ";

  static List<StoredGateway> all(Sql sql, long rulebase) throws SQLException {
    return sql.list(
        GATEWAYS + "where g.rulebase_id = ? order by lower(g.name)", GatewayStore::read, rulebase);
  }

  private static StoredGateway read(ResultSet row) throws SQLException {
    return new StoredGateway(
        row.getLong("id"),
        row.getString("name"),
        row.getLong("rulebase_id"),
        row.getInt("newest"),
        row.getBytes("digest"),
        (Integer) row.getObject("in_force"),
        row.getString("state"),
        (Integer) row.getObject("state_of"),
        row.getString("reason"),
        Sql.instant(row, "enrolled_at"),
        Sql.instant(row, "revoked_at"),
        Sql.instant(row, "seen_at"));
  }

  /** Adds a gateway that has not enrolled; empty if the name is taken. */
  static Optional<Long> add(Sql sql, String name, long rulebase, byte[] tokenHash, Long account)
      throws SQLException {
    return sql.first(
        "insert into gateway (name, rulebase_id, token_hash, created_by) values (?, ?, ?, ?)"
            + " on conflict do nothing returning id",
        row -> row.getLong("id"),
        name,
        rulebase,
        tokenHash,
        account);
  }

  /** Replaces a token, which is used once, by a secret. */
  static Optional<StoredGateway> enrol(Sql sql, byte[] tokenHash, byte[] secretHash)
      throws SQLException {
    int changed =
        sql.change(
            "update gateway set token_hash = null, secret_hash = ?, enrolled_at = now(),"
                + " seen_at = now() where token_hash = ? and revoked_at is null",
            secretHash,
            tokenHash);
    return changed == 1 ? bySecret(sql, secretHash) : Optional.empty();
  }

  static Optional<StoredGateway> bySecret(Sql sql, byte[] secretHash) throws SQLException {
    return sql.first(
        GATEWAYS + "where g.secret_hash = ? and g.revoked_at is null",
        GatewayStore::read,
        secretHash);
  }

  static void seen(Sql sql, long gateway) throws SQLException {
    sql.change("update gateway set seen_at = now() where id = ?", gateway);
  }

  static boolean revoke(Sql sql, long rulebase, long gateway) throws SQLException {
    return sql.change(
            "update gateway set revoked_at = now(), token_hash = null, secret_hash = null"
                + " where id = ? and rulebase_id = ? and revoked_at is null",
            gateway,
            rulebase)
        == 1;
  }

  /** The name of a gateway that exists. */
  static String name(Sql sql, long gateway) throws SQLException {
    return sql.first("select name from gateway where id = ?", row -> row.getString("name"), gateway)
        .orElseThrow();
  }

  /** The name of a rulebase that exists. */
  static String rulebase(Sql sql, long rulebase) throws SQLException {
    return sql.first(
            "select name from rulebase where id = ?", row -> row.getString("name"), rulebase)
        .orElseThrow();
  }

  /** The document of a revision of the gateway's rulebase, by its digest. */
  static Optional<String> content(Sql sql, long rulebase, byte[] digest) throws SQLException {
    return sql.first(
        "select content from revision where rulebase_id = ? and digest = ? limit 1",
        row -> row.getString("content"),
        rulebase,
        digest);
  }

  /** Whether a rulebase has a revision with a digest. */
  static boolean has(Sql sql, long rulebase, int number, byte[] digest) throws SQLException {
    return sql.first(
            "select 1 from revision where rulebase_id = ? and number = ? and digest = ?",
            row -> true,
            rulebase,
            number,
            digest)
        .isPresent();
  }

  static void report(Sql sql, long gateway, int revision, String state, String reason)
      throws SQLException {
    sql.change(
        "update gateway set state = ?, state_of = ?, reason = ?, reported_at = now(),"
            + " seen_at = now(), in_force = case when ? = 'in force' then ? else in_force end"
            + " where id = ?",
        state,
        revision,
        reason,
        state,
        revision,
        gateway);
  }
}
