package dev.ironsieve.gateway;

import dev.ironsieve.gateway.Decisions.InForce;
import java.time.Duration;
import java.time.Instant;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;

/** Lets generated connections meet the revision in force, in real time. */
final class TrafficRun implements Runnable {
  private static final Duration TICK = Duration.ofMillis(100);
  private static final Duration BETWEEN_HITS = Duration.ofSeconds(3);
  private static final Duration HISTORY_STEP = Duration.ofHours(1);

  private final TrafficGenerator generator;
  private final Decisions decisions;
  private final double rate;
  private final Duration history;
  private final Consumer<String> log;
  private final AtomicReference<InForce> next = new AtomicReference<>();

  /**
   * @param rate connections a second in the busiest hour
   * @param history for how long before its start connections are made up too
   */
  TrafficRun(
      TrafficGenerator generator,
      Decisions decisions,
      double rate,
      Duration history,
      Consumer<String> log) {
    this.generator = generator;
    this.decisions = decisions;
    this.rate = rate;
    this.history = history;
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
      past(Instant.now());
      double due = 0;
      Instant reported = Instant.now();
      while (true) {
        Thread.sleep(TICK);
        takeNext();
        Instant now = Instant.now();
        decisions.endUntil(now);
        for (due += rate * generator.load(now) * TICK.toMillis() / 1000; due >= 1; due--) {
          decisions.decide(generator.next(now));
        }
        if (reported.plus(BETWEEN_HITS).isBefore(now)) {
          decisions.reportHits(now);
          reported = now;
        }
      }
    } catch (InterruptedException stop) {
      // The program ends.
    }
  }

  private boolean takeNext() {
    InForce taken = next.getAndSet(null);
    if (taken == null) {
      return false;
    }
    generator.use(taken.rulebase());
    int ended = decisions.use(taken, Instant.now());
    if (ended > 0) {
      log.accept("%d open connections ended by revision %d.".formatted(ended, taken.revision()));
    }
    return true;
  }

  /** Makes up the hours before, a hundredth as dense as they would have been. */
  private void past(Instant now) {
    for (Instant hour = now.minus(history); hour.isBefore(now); hour = hour.plus(HISTORY_STEP)) {
      int count = (int) (rate * generator.load(hour) * HISTORY_STEP.toSeconds() / 100);
      for (int i = 0; i < count; i++) {
        Instant at = hour.plus(HISTORY_STEP.multipliedBy(i).dividedBy(count));
        if (at.isBefore(now)) {
          decisions.endUntil(at);
          decisions.decide(generator.next(at));
        }
      }
      decisions.reportHits(now);
    }
  }
}
