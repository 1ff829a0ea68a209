package dev.ironsieve.gateway;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.formats.syslog.DecisionRecord;
import dev.ironsieve.formats.syslog.DecisionRecord.Origin;
import dev.ironsieve.formats.syslog.HitRecord;
import dev.ironsieve.formats.syslog.SyslogMessage;
import java.time.Duration;
import java.time.Instant;
import java.util.function.Consumer;

/** Makes the numbered records of a gateway's decisions. For one thread. */
final class Reports {
  private static final int REFUSED_BYTES = 60;

  private final String gateway;
  private final String run;
  private final Consumer<SyslogMessage> out;
  private final Consumer<DecisionRecord> flows;
  private long sequence;

  /**
   * @param gateway its name
   * @param run a random word
   * @param flows takes each record of a connection once more
   */
  Reports(String gateway, String run, Consumer<SyslogMessage> out, Consumer<DecisionRecord> flows) {
    this.flows = flows;
    this.gateway = gateway;
    this.run = run;
    this.out = out;
  }

  private Origin origin() {
    sequence++;
    return new Origin(gateway, run, sequence);
  }

  /**
   * A connection was decided.
   *
   * @param rule null for the default rule
   * @param observed the rule that only observes and would have decided; null for none
   */
  void start(Attempt attempt, int revision, Rule rule, Rule observed) {
    boolean through = DefaultRule.verdict(rule).letsThrough();
    record(
        "start",
        attempt,
        revision,
        rule,
        observed,
        0,
        through ? 0 : 1,
        through ? 0 : REFUSED_BYTES);
  }

  /** A connection ended. */
  void end(Attempt attempt, int revision, Rule rule, Instant at) {
    long millis = Math.max(0, Duration.between(attempt.at(), at).toMillis());
    long whole = Math.max(1, attempt.length().toMillis());
    double share = Math.min(1, (double) millis / whole);
    record(
        "end",
        attempt,
        revision,
        rule,
        null,
        millis,
        (long) (attempt.packets() * share),
        (long) (attempt.bytes() * share));
  }

  private void record(
      String phase,
      Attempt attempt,
      int revision,
      Rule rule,
      Rule observed,
      long millis,
      long packets,
      long bytes) {
    Connection c = attempt.connection();
    DecisionRecord made =
        new DecisionRecord(
            origin(),
            phase,
            revision,
            rule == null ? null : rule.id(),
            DefaultRule.verdict(rule),
            observed == null ? null : observed.id(),
            observed == null ? null : observed.verdict(),
            attempt.at(),
            millis,
            packets,
            bytes,
            c.from().zone(),
            c.from().address(),
            c.to().zone(),
            c.to().address(),
            c.protocol(),
            c.detail(),
            Math.max(0, c.sourcePort()),
            c.terms().get(Coordinate.PERSON),
            c.terms().get(Coordinate.DEVICE),
            c.terms().get(Coordinate.SITE),
            c.terms().get(Coordinate.APPLICATION),
            c.terms().get(Coordinate.FILE_KIND));
    out.accept(made.message(Instant.now()));
    flows.accept(made);
  }

  /**
   * How often a rule decided since the last report of it.
   *
   * @param rule its id; null for the default rule
   */
  void hits(
      int revision,
      String rule,
      long connections,
      long observed,
      long differing,
      long packets,
      long bytes,
      Instant first,
      Instant last) {
    out.accept(
        new HitRecord(
                origin(),
                revision,
                rule,
                connections,
                observed,
                differing,
                packets,
                bytes,
                first,
                last)
            .message(Instant.now()));
  }
}
