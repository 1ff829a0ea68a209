package dev.ironsieve.gateway;

import dev.ironsieve.core.model.Rate;
import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.Address;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * Executes rate plans: each ceiling and each floor is a token bucket, and a connection ends when
 * the bucket has given a token for its last byte. Connections with a floor draw from the bucket of
 * the floor while the bucket of the line is empty. A bucket is kept as the time at which it will be
 * full again (the virtual scheduling algorithm of ITU-T I.371, annex A). For one thread.
 */
final class RateLimits {
  private static final Duration BURST = Duration.ofSeconds(1);
  private static final int MOST_SOURCES = 100_000; // buckets of single addresses
  private static final double SMALLEST_SHARE = 0.01; // of a line whose floors take all of it

  private final Map<String, RatePlan> plans = new HashMap<>();
  private final Map<String, Bucket> buckets = new HashMap<>();
  private final Map<String, Bucket> sources =
      new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Bucket> eldest) {
          return size() > MOST_SOURCES;
        }
      };
  private final Bucket line; // what floors leave of it; null if its capacity is not known

  RateLimits(Rulebase rulebase) {
    rulebase.gatewaySettings().ratePlans().forEach(plan -> plans.put(plan.name(), plan));
    Rate capacity = rulebase.gatewaySettings().lineCapacity();
    line = capacity == null ? null : new Bucket(left(capacity.bits(), rulebase));
  }

  private long left(long capacity, Rulebase rulebase) {
    double reserved = 0;
    for (RatePlan plan : plans.values()) {
      if (plan.floor() != null) {
        double shares =
            switch (plan.counted()) {
              case ALL_RULES -> 1;
              case EACH_RULE ->
                  rulebase.rules().stream()
                      .filter(rule -> plan.name().equals(rule.ratePlan()))
                      .count();
              case EACH_SOURCE -> plan.mostAtOnce();
            };
        reserved += shares * plan.floor().bits();
      }
    }
    return (long) Math.max(capacity * SMALLEST_SHARE, capacity - reserved);
  }

  /** A token bucket. */
  private static final class Bucket {
    private final double bitsPerSecond;
    private Instant full = Instant.MIN; // when it is, with what it has given so far

    Bucket(double bitsPerSecond) {
      this.bitsPerSecond = bitsPerSecond;
    }

    /** When it would have given so many bytes, from a time on. */
    Instant end(Instant from, long bytes) {
      return next(from, bytes).minus(BURST);
    }

    void take(Instant from, long bytes) {
      full = next(from, bytes);
    }

    private Instant next(Instant from, long bytes) {
      Instant start = full.isBefore(from) ? from : full;
      return start.plusNanos((long) (bytes * 8 / bitsPerSecond * 1e9));
    }
  }

  /**
   * When a connection ends that a rule lets through.
   *
   * @param length how long it is open without any limit
   * @param bytes that it moves
   */
  Instant end(Rule rule, Address source, Instant at, Duration length, long bytes) {
    Instant end = at.plus(length);
    RatePlan plan = rule.ratePlan() == null ? null : plans.get(rule.ratePlan());
    if (plan != null && plan.ceiling() != null) {
      Bucket ceiling = bucket("ceiling", plan, rule, source, plan.ceiling());
      end = later(end, ceiling.end(at, bytes));
      ceiling.take(at, bytes);
    }
    if (line == null) {
      return end;
    }
    Bucket way = line;
    if (plan != null && plan.floor() != null) {
      Bucket floor = bucket("floor", plan, rule, source, plan.floor());
      way = floor.end(at, bytes).isAfter(line.end(at, bytes)) ? line : floor;
    }
    end = later(end, way.end(at, bytes));
    way.take(at, bytes);
    return end;
  }

  private Bucket bucket(String kind, RatePlan plan, Rule rule, Address source, Rate rate) {
    String key = kind + " " + plan.name();
    return switch (plan.counted()) {
      case ALL_RULES -> buckets.computeIfAbsent(key, any -> new Bucket(rate.bits()));
      case EACH_RULE ->
          buckets.computeIfAbsent(key + " " + rule.id(), any -> new Bucket(rate.bits()));
      case EACH_SOURCE ->
          sources.computeIfAbsent(key + " " + source, any -> new Bucket(rate.bits()));
    };
  }

  private static Instant later(Instant a, Instant b) {
    return a.isAfter(b) ? a : b;
  }
}
