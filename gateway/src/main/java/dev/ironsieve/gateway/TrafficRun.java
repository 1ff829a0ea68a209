package dev.ironsieve.gateway;

import dev.ironsieve.gateway.Decisions.InForce;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;

/** Lets the connections of a source meet the revision in force, in real time. */
final class TrafficRun implements Runnable {
  private static final Duration TICK = Duration.ofMillis(100);
  private static final Duration BETWEEN_HITS = Duration.ofSeconds(3);

  private final TrafficSource source;
  private final Decisions decisions;
  private final Consumer<String> log;
  private final AtomicReference<InForce> next = new AtomicReference<>();

  TrafficRun(TrafficSource source, Decisions decisions, Consumer<String> log) {
    this.source = source;
    this.decisions = decisions;
    this.log = log;
  }

  /** Another revision is in force. */
  void use(InForce inForce) {
    next.set(inForce);
  }

  @Override
  public void run() {
    try {
      while (!takeNext()) {
        Thread.sleep(TICK);
      }
      Instant reported = Instant.now();
      while (true) {
        Instant now = Instant.now();
        decide(now);
        decisions.endUntil(now);
        if (reported.plus(BETWEEN_HITS).isBefore(now)) {
          decisions.reportHits(now);
          reported = now;
        }
        Thread.sleep(TICK);
        takeNext();
      }
    } catch (InterruptedException stop) {
      // The program ends.
    }
  }

  /** Decides what is due. The hits of each hour are reported by themselves. */
  private void decide(Instant now) {
    Instant hour = null;
    for (Attempt attempt : source.due(now)) {
      Instant begun = attempt.at().truncatedTo(ChronoUnit.HOURS);
      if (hour != null && !hour.equals(begun)) {
        decisions.reportHits(now);
      }
      hour = begun;
      decisions.endUntil(attempt.at());
      source.decided(attempt, decisions.decide(attempt));
    }
  }

  private boolean takeNext() {
    InForce taken = next.getAndSet(null);
    if (taken == null) {
      return false;
    }
    source.use(taken.rulebase());
    int ended = decisions.use(taken, Instant.now());
    if (ended > 0) {
      log.accept("%d open connections ended by revision %d.".formatted(ended, taken.revision()));
    }
    return true;
  }
}
