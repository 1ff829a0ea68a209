package dev.ironsieve.gateway;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.rulebase.Rulebase;
import java.time.Duration;
import java.time.Instant;
import java.util.List;

/** Measures how many connections a gateway decides a second, for the benchmarks. */
public final class DecisionSpeed {
  private static final double NANOS_PER_SECOND = 1e9;
  private static final int BETWEEN_LOOKS = 1_000; // connections

  private final Decisions decisions;
  private final List<Attempt> attempts;
  private int next;

  /**
   * @param connections that are decided again and again, in this order
   */
  public DecisionSpeed(Rulebase rulebase, List<Connection> connections) {
    Reports reports = new Reports("Bench", "run", message -> {}, flow -> {});
    decisions = new Decisions(reports, Decisions.MOST_OPEN, sentence -> {});
    Instant now = Instant.now();
    decisions.use(Decisions.InForce.of(1, rulebase), now);
    attempts = connections.stream().map(c -> new Attempt(c, now, Duration.ZERO, 10_000)).toList();
  }

  /**
   * Decides connections on this thread for a time: verdict, hits, rate plan, hold, and the record
   * where the rule logs.
   *
   * @return connections a second
   */
  public double perSecond(Duration length) {
    long start = System.nanoTime();
    long end = start + length.toNanos();
    long count = 0;
    long now;
    do {
      for (int i = 0; i < BETWEEN_LOOKS; i++) {
        decisions.decide(attempts.get(next));
        next = (next + 1) % attempts.size();
      }
      count += BETWEEN_LOOKS;
      decisions.endUntil(Instant.now());
      now = System.nanoTime();
    } while (now < end);
    return count * NANOS_PER_SECOND / (now - start);
  }
}
