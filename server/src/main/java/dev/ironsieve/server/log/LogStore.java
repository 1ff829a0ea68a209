package dev.ironsieve.server.log;

import dev.ironsieve.formats.syslog.DecisionRecord;
import dev.ironsieve.formats.syslog.DecisionRecord.Origin;
import dev.ironsieve.formats.syslog.HitRecord;
import dev.ironsieve.server.jdbc.CopyRows;
import dev.ironsieve.server.jdbc.Sql;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/** SQL that stores log records. */
final class LogStore {
  private static final String PARTITION = "log_record_";
  private static final DateTimeFormatter DAY = DateTimeFormatter.BASIC_ISO_DATE;

  private LogStore() {}

  /** A gateway that was not revoked. */
  record KnownGateway(long id, long rulebase) {}

  /**
   * A record of a known gateway.
   *
   * @param at the time under which it is stored
   */
  record Located(LogEntry entry, KnownGateway gateway, Instant at) {}

  /** The gateways, by lower-case name. */
  static Map<String, KnownGateway> gateways(Sql sql) throws SQLException {
    Map<String, KnownGateway> out = new HashMap<>();
    sql.list(
        "select id, name, rulebase_id from gateway where revoked_at is null",
        row ->
            out.put(
                row.getString("name").toLowerCase(Locale.ROOT),
                new KnownGateway(row.getLong("id"), row.getLong("rulebase_id"))));
    return out;
  }

  /** Adds the partition of a day, if it is not there. */
  static void addPartition(Sql sql, LocalDate day) throws SQLException {
    // Two servers must not add the same one at the same time.
    sql.list("select pg_advisory_xact_lock(hashtext('log_record'))", row -> true);
    sql.change(
        "create table if not exists %s%s partition of log_record for values from ('%s') to ('%s')"
            .formatted(PARTITION, day.format(DAY), day + " 00:00Z", day.plusDays(1) + " 00:00Z"));
  }

  /** Drops the partitions of the days before another. */
  static void dropBefore(Sql sql, LocalDate oldest) throws SQLException {
    List<String> partitions =
        sql.list(
            "select c.relname from pg_inherits i join pg_class c on c.oid = i.inhrelid"
                + " where i.inhparent = 'log_record'::regclass order by c.relname",
            row -> row.getString(1));
    for (String partition : partitions) {
      LocalDate day = LocalDate.parse(partition.substring(PARTITION.length()), DAY);
      if (day.isBefore(oldest)) {
        sql.change("drop table " + partition);
      }
    }
    sql.change(
        "delete from rule_open o using log_sender s where s.gateway_id = o.gateway_id"
            + " and s.run = o.run and s.last_at < now() - interval '1 day'");
    sql.change("delete from rule_hits where hour < ?::date", oldest.toString());
  }

  private record Run(long gateway, String run) {}

  private record HitKey(long rulebase, String rule, Instant hour, long gateway, int revision) {}

  private static final class Sum {
    private long connections;
    private long observed;
    private long differing;
    private long packets;
    private long bytes;
    private Instant first = Instant.MAX;
    private Instant last = Instant.MIN;

    void add(HitRecord hits) {
      connections += hits.connections();
      observed += hits.observed();
      differing += hits.differing();
      packets += hits.packets();
      bytes += hits.bytes();
      first = hits.firstAt().isBefore(first) ? hits.firstAt() : first;
      last = hits.lastAt().isAfter(last) ? hits.lastAt() : last;
    }
  }

  /** Stores the new records of a batch; the number of a record shows whether it is new. */
  static void store(Sql sql, List<Located> records) throws SQLException {
    Map<Run, RunProgress> runs = new LinkedHashMap<>();
    CopyRows decisions = new CopyRows();
    Map<HitKey, Sum> hits = new LinkedHashMap<>();
    Map<OpenKey, Long> open = new LinkedHashMap<>();
    boolean anyDecision = false;
    for (Located record : records) {
      Origin origin = record.entry().origin();
      Run run = new Run(record.gateway().id(), origin.run());
      RunProgress progress = runs.get(run);
      if (progress == null) {
        progress = progress(sql, run);
        runs.put(run, progress);
      }
      if (record.entry().sentAt() != null) {
        progress.clock(record.entry().receivedAt(), record.entry().sentAt());
      }
      if (!progress.take(origin.sequence())) {
        continue;
      }
      if (record.entry().decision() != null) {
        decision(decisions, record);
        anyDecision = true;
      } else {
        HitRecord one = record.entry().hits();
        open.put(new OpenKey(record.gateway(), run.run(), ruleKey(one)), one.open());
        if (one.connections() == 0 && one.observed() == 0) {
          continue;
        }
        HitKey key =
            new HitKey(
                record.gateway().rulebase(),
                ruleKey(one),
                record.at().truncatedTo(ChronoUnit.HOURS),
                record.gateway().id(),
                one.revision());
        hits.computeIfAbsent(key, any -> new Sum()).add(one);
      }
    }
    if (anyDecision) {
      sql.copy(COPY, decisions);
    }
    storeHits(sql, hits);
    storeOpen(sql, open);
    for (Map.Entry<Run, RunProgress> run : runs.entrySet()) {
      RunProgress progress = run.getValue();
      sql.change(
          "update log_sender set next_number = ?, missing = ?, lost = lost + ?,"
              + " repeated = repeated + ?, last_at = now(), clock_ahead = make_interval(secs => ?)"
              + " where gateway_id = ? and run = ?",
          progress.next(),
          progress.missing(),
          progress.lost(),
          progress.repeated(),
          progress.ahead().toMillis() / 1000.0,
          run.getKey().gateway(),
          run.getKey().run());
    }
  }

  private static RunProgress progress(Sql sql, Run run) throws SQLException {
    sql.change(
        "insert into log_sender (gateway_id, run, next_number) values (?, ?, 1)"
            + " on conflict do nothing",
        run.gateway(),
        run.run());
    Optional<RunProgress> known =
        sql.first(
            "select next_number, missing from log_sender where gateway_id = ? and run = ?"
                + " for update",
            row ->
                new RunProgress(
                    row.getLong("next_number"),
                    List.of((Long[]) row.getArray("missing").getArray())),
            run.gateway(),
            run.run());
    return known.orElseThrow();
  }

  private static final String COPY =
      "copy log_record (at, received_at, rulebase_id, gateway_id, number, revision, rule, verdict, observed_rule,"
          + " observed_verdict, phase,"
          + " millis, packets, bytes, from_zone, from_address, to_zone, to_address, protocol,"
          + " port, source_port, person, device, site, application, file, stage) from stdin";

  private static void decision(CopyRows out, Located record) {
    DecisionRecord of = record.entry().decision();
    out.value(record.at()).value(record.entry().receivedAt());
    out.value(record.gateway().rulebase()).value(record.gateway().id());
    out.value(of.origin().sequence());
    out.value(of.revision()).value(of.rule());
    out.value(of.verdict().word()).value(of.observedRule());
    out.value(of.observedVerdict() == null ? null : of.observedVerdict().word());
    out.value(of.phase());
    out.value(of.millis()).value(of.packets()).value(of.bytes());
    out.value(of.fromZone()).value(of.from()).value(of.toZone()).value(of.to());
    out.value(of.protocol()).value(of.detail()).value(of.sourcePort());
    out.value(of.person()).value(of.device()).value(of.site());
    out.value(of.application()).value(of.file()).value(of.stage());
    out.end();
  }

  private record OpenKey(KnownGateway gateway, String run, String rule) {}

  /** The id of a rule; empty for the default rule. */
  private static String ruleKey(HitRecord hits) {
    return hits.rule() == null ? "" : hits.rule();
  }

  private static void storeOpen(Sql sql, Map<OpenKey, Long> open) throws SQLException {
    List<Map.Entry<OpenKey, Long>> inOrder = new ArrayList<>(open.entrySet());
    inOrder.sort((a, b) -> a.getKey().toString().compareTo(b.getKey().toString()));
    for (Map.Entry<OpenKey, Long> entry : inOrder) {
      OpenKey key = entry.getKey();
      sql.change(
          "insert into rule_open (rulebase_id, gateway_id, run, rule, open) values (?, ?, ?, ?, ?)"
              + " on conflict (gateway_id, run, rule) do update set open = excluded.open",
          key.gateway().rulebase(),
          key.gateway().id(),
          key.run(),
          key.rule(),
          entry.getValue());
    }
  }

  private static void storeHits(Sql sql, Map<HitKey, Sum> hits) throws SQLException {
    // In one order, so that two servers never wait for each other.
    List<Map.Entry<HitKey, Sum>> inOrder = new ArrayList<>(hits.entrySet());
    inOrder.sort((a, b) -> a.getKey().toString().compareTo(b.getKey().toString()));
    for (Map.Entry<HitKey, Sum> entry : inOrder) {
      HitKey key = entry.getKey();
      Sum sum = entry.getValue();
      sql.change(
          "insert into rule_hits (rulebase_id, rule, hour, gateway_id, revision, connections,"
              + " observed, differing, packets, bytes) values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)"
              + " on conflict (rulebase_id, rule, hour, gateway_id, revision) do update set"
              + " connections = rule_hits.connections + excluded.connections,"
              + " observed = rule_hits.observed + excluded.observed,"
              + " differing = rule_hits.differing + excluded.differing,"
              + " packets = rule_hits.packets + excluded.packets,"
              + " bytes = rule_hits.bytes + excluded.bytes",
          key.rulebase(),
          key.rule(),
          key.hour(),
          key.gateway(),
          key.revision(),
          sum.connections,
          sum.observed,
          sum.differing,
          sum.packets,
          sum.bytes);
      sql.change(
          "insert into rule_hit_total as t (rulebase_id, rule, connections, observed,"
              + " differing, packets, bytes, first_at, last_at)"
              + " values (?, ?, ?, ?, ?, ?, ?, ?, ?)"
              + " on conflict (rulebase_id, rule) do update set"
              + " connections = t.connections + excluded.connections,"
              + " observed = t.observed + excluded.observed,"
              + " differing = t.differing + excluded.differing,"
              + " packets = t.packets + excluded.packets, bytes = t.bytes + excluded.bytes,"
              + " first_at = least(t.first_at, excluded.first_at),"
              + " last_at = greatest(t.last_at, excluded.last_at)",
          key.rulebase(),
          key.rule(),
          sum.connections,
          sum.observed,
          sum.differing,
          sum.packets,
          sum.bytes,
          sum.first,
          sum.last);
    }
  }
}
