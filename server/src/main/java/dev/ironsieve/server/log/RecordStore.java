package dev.ironsieve.server.log;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.server.jdbc.Sql;
import dev.ironsieve.server.log.RevisionRules.NamedRule;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntFunction;

/** Reads log records and hits. */
final class RecordStore {
  /** For how long the last report of open connections counts; gateways report every 3 seconds. */
  private static final Duration OPEN_COUNTS = Duration.ofSeconds(30);

  private RecordStore() {}

  static List<LogRow> records(
      Sql sql, long rulebase, LogFilter filter, int most, IntFunction<RevisionRules> revisions)
      throws SQLException {
    List<Object> values = new ArrayList<>();
    values.add(rulebase);
    values.addAll(filter.values());
    values.add(most);
    return sql.list(
        "select r.*, g.name as gateway from log_record r join gateway g on g.id = r.gateway_id"
            + " where r.rulebase_id = ?"
            + filter.condition()
            + " order by r.at desc, r.id desc limit ?",
        row -> record(row, revisions.apply(row.getInt("revision"))),
        values.toArray());
  }

  private static LogRow record(ResultSet row, RevisionRules rules) throws SQLException {
    Instant at = Sql.instant(row, "at");
    int protocol = row.getInt("protocol");
    int port = row.getInt("port");
    String rule = row.getString("rule");
    NamedRule named = rule == null ? null : rules.byId().get(rule);
    return new LogRow(
        at + "_" + row.getLong("id"),
        at.toString(),
        row.getString("gateway"),
        row.getInt("revision"),
        rule,
        named == null ? null : named.name(),
        named == null ? null : named.number(),
        row.getString("verdict"),
        row.getString("observed_rule"),
        row.getString("observed_verdict"),
        row.getString("phase"),
        row.getLong("millis"),
        row.getLong("packets"),
        row.getLong("bytes"),
        row.getString("from_zone"),
        row.getString("from_address"),
        row.getString("to_zone"),
        row.getString("to_address"),
        new ServiceLiteral(protocol, port, port, 0, Transport.MAX_DETAIL).toString(),
        Transport.hasPorts(protocol) ? row.getInt("source_port") : null,
        row.getString("person"),
        row.getString("device"),
        row.getString("site"),
        row.getString("application"),
        row.getString("file"),
        row.getString("stage"),
        ConnectionLine.format(connection(row, at, rules.zone())));
  }

  private static final Map<Coordinate, String> TERM_COLUMNS =
      Map.of(
          Coordinate.PERSON, "person",
          Coordinate.DEVICE, "device",
          Coordinate.SITE, "site",
          Coordinate.APPLICATION, "application",
          Coordinate.FILE_KIND, "file");

  private static Connection connection(ResultSet row, Instant at, ZoneId zone) throws SQLException {
    Map<Coordinate, String> terms = new EnumMap<>(Coordinate.class);
    for (Map.Entry<Coordinate, String> column : TERM_COLUMNS.entrySet()) {
      String value = row.getString(column.getValue());
      if (value != null) {
        terms.put(column.getKey(), value);
      }
    }
    LocalDateTime time = at.atZone(zone).toLocalDateTime().truncatedTo(ChronoUnit.MINUTES);
    terms.put(Coordinate.TIME, time.toString());
    int protocol = row.getInt("protocol");
    return new Connection(
        new Endpoint(row.getString("from_zone"), Address.parse(row.getString("from_address"))),
        new Endpoint(row.getString("to_zone"), Address.parse(row.getString("to_address"))),
        protocol,
        row.getInt("port"),
        Transport.hasPorts(protocol) ? row.getInt("source_port") : Connection.UNKNOWN,
        terms);
  }

  /** Connections since a time, each once, the newest first. */
  static List<Connection> connections(
      Sql sql, long rulebase, Instant time, int most, IntFunction<ZoneId> zones)
      throws SQLException {
    // A rule that logs start and end has two records of a connection; they differ in these only.
    return sql.list(
        "select * from (select distinct on (at, gateway_id, from_address, source_port, to_address,"
            + " protocol, port) * from (select * from log_record where rulebase_id = ? and at >= ?"
            + " order by at desc limit ?) newest) once order by at desc",
        row -> connection(row, Sql.instant(row, "at"), zones.apply(row.getInt("revision"))),
        rulebase,
        time,
        most);
  }

  static List<RuleHits> hits(Sql sql, long rulebase, Instant now) throws SQLException {
    Instant last = now.truncatedTo(ChronoUnit.HOURS);
    Instant first = last.minus(RuleHits.HOURS - 1, ChronoUnit.HOURS);
    Map<String, Long[]> hours = new HashMap<>();
    sql.list(
        "select rule, hour, sum(connections) as connections from rule_hits"
            + " where rulebase_id = ? and hour >= ? group by rule, hour",
        row -> {
          long hour = ChronoUnit.HOURS.between(first, Sql.instant(row, "hour"));
          if (hour < RuleHits.HOURS) {
            hours.computeIfAbsent(row.getString("rule"), any -> none())[(int) hour] =
                row.getLong("connections");
          }
          return true;
        },
        rulebase,
        first);
    Map<String, Long> open = new HashMap<>();
    sql.list(
        "select o.rule, sum(o.open) as open from rule_open o join log_sender s"
            + " on s.gateway_id = o.gateway_id and s.run = o.run"
            + " where o.rulebase_id = ? and s.last_at > ? group by o.rule",
        row -> open.put(row.getString("rule"), row.getLong("open")),
        rulebase,
        now.minus(OPEN_COUNTS));
    return sql.list(
        "select * from rule_hit_total where rulebase_id = ?",
        row -> {
          String rule = row.getString("rule");
          return new RuleHits(
              row.getLong("connections"),
              rule.isEmpty() ? null : rule,
              open.getOrDefault(rule, 0L),
              row.getLong("observed"),
              row.getLong("differing"),
              row.getLong("packets"),
              row.getLong("bytes"),
              Sql.instant(row, "first_at").toString(),
              Sql.instant(row, "last_at").toString(),
              List.of(hours.getOrDefault(rule, none())));
        },
        rulebase);
  }

  private static Long[] none() {
    Long[] out = new Long[RuleHits.HOURS];
    Arrays.fill(out, 0L);
    return out;
  }

  static List<LogRun> runs(Sql sql, long rulebase) throws SQLException {
    return sql.list(
        "select g.name, s.*, extract(epoch from s.clock_ahead) as ahead from log_sender s"
            + " join gateway g on g.id = s.gateway_id where g.rulebase_id = ?"
            + " order by s.last_at desc limit 100",
        row ->
            new LogRun(
                row.getString("name"),
                row.getLong("next_number") - 1 - row.getLong("lost"),
                row.getLong("lost"),
                row.getLong("repeated"),
                Sql.instant(row, "started_at").toString(),
                Sql.instant(row, "last_at").toString(),
                row.getDouble("ahead")),
        rulebase);
  }
}
