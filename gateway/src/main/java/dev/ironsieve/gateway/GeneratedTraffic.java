package dev.ironsieve.gateway;

import dev.ironsieve.core.rulebase.Rulebase;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;

/** Generated connections, as many as fit the hour. */
final class GeneratedTraffic implements TrafficSource {
  private static final Duration HISTORY_STEP = Duration.ofHours(1);
  private static final int HISTORY_THINNING = 100; // as dense as they would have been
  private static final Duration LONGEST_PAUSE = Duration.ofSeconds(1); // that is made up for

  private final TrafficGenerator generator;
  private final double rate;
  private Duration history;
  private Instant last;
  private double owed;

  /**
   * @param rate connections a second in the busiest hour
   * @param history for how long before the first call connections are made up too
   */
  GeneratedTraffic(TrafficGenerator generator, double rate, Duration history) {
    this.generator = generator;
    this.rate = rate;
    this.history = history;
  }

  @Override
  public void use(Rulebase rulebase) {
    generator.use(rulebase);
  }

  @Override
  public List<Attempt> due(Instant now) {
    List<Attempt> out = new ArrayList<>();
    if (last == null) {
      past(now, out);
      history = Duration.ZERO;
      last = now;
    }
    Duration since = Duration.between(last, now);
    last = now;
    long millis = Math.min(since.toMillis(), LONGEST_PAUSE.toMillis());
    for (owed += rate * generator.load(now) * millis / 1000; owed >= 1; owed--) {
      out.add(generator.next(now));
    }
    return out;
  }

  /** Makes up the hours before. */
  private void past(Instant now, List<Attempt> out) {
    for (Instant hour = now.minus(history); hour.isBefore(now); hour = hour.plus(HISTORY_STEP)) {
      int count = (int) (rate * generator.load(hour) * HISTORY_STEP.toSeconds() / HISTORY_THINNING);
      for (int i = 0; i < count; i++) {
        Instant at = hour.plus(HISTORY_STEP.multipliedBy(i).dividedBy(count));
        if (at.isBefore(now)) {
          out.add(generator.next(at));
        }
      }
    }
  }
}
