package dev.ironsieve.core.model;

import java.time.ZoneId;
import java.util.List;

/**
 * What is said beyond matching: how much of the line connections get, what people are told; and of
 * the gateway, what its line carries and by which clock it goes.
 *
 * @param lineCapacity how much the line carries; null if nobody said so
 * @param timeZone in which times are meant
 * @param breadth when a rule is too broad
 */
public record Handling(
    List<RatePlan> ratePlans,
    List<Notice> notices,
    Rate lineCapacity,
    ZoneId timeZone,
    Breadth breadth) {
  /** The time zone of whoever says none. */
  public static final ZoneId UTC = ZoneId.of("UTC");

  public static final Handling NONE = new Handling(List.of(), List.of(), null);

  public Handling {
    ratePlans = List.copyOf(ratePlans);
    notices = List.copyOf(notices);
  }

  /** In UTC. */
  public Handling(List<RatePlan> ratePlans, List<Notice> notices, Rate lineCapacity) {
    this(ratePlans, notices, lineCapacity, UTC, Breadth.DEFAULT);
  }

  public Handling withRatePlans(List<RatePlan> ratePlans) {
    return new Handling(ratePlans, notices, lineCapacity, timeZone, breadth);
  }

  public Handling withNotices(List<Notice> notices) {
    return new Handling(ratePlans, notices, lineCapacity, timeZone, breadth);
  }

  public Handling withLineCapacity(Rate lineCapacity) {
    return new Handling(ratePlans, notices, lineCapacity, timeZone, breadth);
  }

  public Handling withTimeZone(ZoneId timeZone) {
    return new Handling(ratePlans, notices, lineCapacity, timeZone, breadth);
  }

  public Handling withBreadth(Breadth breadth) {
    return new Handling(ratePlans, notices, lineCapacity, timeZone, breadth);
  }
}
