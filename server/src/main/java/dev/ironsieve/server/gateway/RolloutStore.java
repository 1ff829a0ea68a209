package dev.ironsieve.server.gateway;

import dev.ironsieve.server.jdbc.Sql;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

/** SQL about revisions that some gateways follow first. */
final class RolloutStore {
  private RolloutStore() {}

  /** A row; {@code stopped} is null while it waits. */
  record Stored(long rulebase, int revision, List<Long> first, Instant restAt, String stopped) {}

  static Optional<Stored> of(Sql sql, long rulebase) throws SQLException {
    return sql.first("select * from rollout where rulebase_id = ?", RolloutStore::read, rulebase);
  }

  static List<Stored> waiting(Sql sql) throws SQLException {
    return sql.list("select * from rollout where stopped is null", RolloutStore::read);
  }

  private static Stored read(ResultSet row) throws SQLException {
    return new Stored(
        row.getLong("rulebase_id"),
        row.getInt("revision"),
        List.of((Long[]) row.getArray("first").getArray()),
        Sql.instant(row, "rest_at"),
        row.getString("stopped"));
  }

  /** The revision that the others follow while one waits or is stopped; else the newest. */
  static int followed(Sql sql, long rulebase) throws SQLException {
    return sql.first(
            "select coalesce(o.previous, d.base_revision) as number from draft d"
                + " left join rollout o on o.rulebase_id = d.rulebase_id"
                + " and o.revision = d.base_revision where d.rulebase_id = ?",
            row -> row.getInt("number"),
            rulebase)
        .orElseThrow();
  }

  static void put(
      Sql sql, long rulebase, int revision, int previous, List<Long> first, Instant restAt)
      throws SQLException {
    delete(sql, rulebase);
    sql.change(
        "insert into rollout (rulebase_id, revision, previous, first, rest_at)"
            + " values (?, ?, ?, ?, ?)",
        rulebase,
        revision,
        previous,
        first.toArray(Long[]::new),
        restAt);
  }

  /** Whether there was one. */
  static boolean delete(Sql sql, long rulebase) throws SQLException {
    return sql.change("delete from rollout where rulebase_id = ?", rulebase) == 1;
  }

  /** Whether one waited. */
  static boolean stop(Sql sql, long rulebase, int revision, String reason) throws SQLException {
    return sql.change(
            "update rollout set stopped = ? where rulebase_id = ? and revision = ?"
                + " and stopped is null",
            reason,
            rulebase,
            revision)
        == 1;
  }
}
