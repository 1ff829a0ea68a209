package dev.ironsieve.gateway;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.formats.syslog.DecisionRecord;
import dev.ironsieve.formats.syslog.DecisionRecord.Origin;
import dev.ironsieve.formats.syslog.HitRecord;
import dev.ironsieve.formats.syslog.SyslogMessage;
import java.time.Instant;
import java.util.function.Consumer;

/** Makes the numbered records of a gateway's decisions. For one thread. */
final class Reports {
  private static final String HOLD = "hold";

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
   * How much of a connection there was until a time.
   *
   * @param share of its packets and bytes, 0 to 1
   */
  record Share(long millis, double share) {}

  /**
   * A connection was decided.
   *
   * @param observed the rule that only observes and would have decided; null for none
   */
  void start(Attempt attempt, int revision, StagedDecision decision, Rule observed) {
    boolean through = decision.verdict().letsThrough();
    long packets = through ? 0 : decision.packetsBefore(attempt.packets());
    record(
        "start",
        attempt,
        revision,
        decision,
        observed,
        0,
        packets,
        through ? 0 : attempt.bytes(packets));
  }

  /** A connection was refused, since a rule holds whoever opened it. */
  void held(Attempt attempt, int revision, Rule rule) {
    made("start", attempt, revision, rule, Verdict.DROP, null, 0, 1, attempt.bytes(1), HOLD);
  }

  /** A connection ended. */
  void end(Attempt attempt, int revision, StagedDecision decision, Share share) {
    record(
        "end",
        attempt,
        revision,
        decision,
        null,
        share.millis(),
        (long) (attempt.packets() * share.share()),
        (long) (attempt.bytes() * share.share()));
  }

  private void record(
      String phase,
      Attempt attempt,
      int revision,
      StagedDecision decision,
      Rule observed,
      long millis,
      long packets,
      long bytes) {
    made(
        phase,
        attempt,
        revision,
        decision.rule(),
        decision.verdict(),
        observed,
        millis,
        packets,
        bytes,
        decision.stageWord());
  }

  private void made(
      String phase,
      Attempt attempt,
      int revision,
      Rule rule,
      Verdict verdict,
      Rule observed,
      long millis,
      long packets,
      long bytes,
      String stage) {
    Connection c = attempt.connection();
    DecisionRecord made =
        new DecisionRecord(
            origin(),
            phase,
            revision,
            rule == null ? null : rule.id(),
            verdict,
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
            c.terms().get(Coordinate.FILE_KIND),
            stage);
    out.accept(made.message(Instant.now()));
    flows.accept(made);
  }

  /**
   * How often a rule decided since the last report of it.
   *
   * @param rule its id; null for the default rule
   * @param open connections by it that are open now
   */
  void hits(
      int revision,
      String rule,
      long open,
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
                open,
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
