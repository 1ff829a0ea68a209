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
public record GatewaySettings(
    List<RatePlan> ratePlans,
    List<Notice> notices,
    Rate lineCapacity,
    ZoneId timeZone,
    Breadth breadth) {
  /** The time zone of whoever says none. */
  public static final ZoneId UTC = ZoneId.of("UTC");

  public static final GatewaySettings NONE = new GatewaySettings(List.of(), List.of(), null);

  public GatewaySettings {
    ratePlans = List.copyOf(ratePlans);
    notices = List.copyOf(notices);
  }

  /** In UTC. */
  public GatewaySettings(List<RatePlan> ratePlans, List<Notice> notices, Rate lineCapacity) {
    this(ratePlans, notices, lineCapacity, UTC, Breadth.DEFAULT);
  }

  public GatewaySettings withRatePlans(List<RatePlan> ratePlans) {
    return new GatewaySettings(ratePlans, notices, lineCapacity, timeZone, breadth);
  }

  public GatewaySettings withNotices(List<Notice> notices) {
    return new GatewaySettings(ratePlans, notices, lineCapacity, timeZone, breadth);
  }

  public GatewaySettings withLineCapacity(Rate lineCapacity) {
    return new GatewaySettings(ratePlans, notices, lineCapacity, timeZone, breadth);
  }

  public GatewaySettings withTimeZone(ZoneId timeZone) {
    return new GatewaySettings(ratePlans, notices, lineCapacity, timeZone, breadth);
  }

  public GatewaySettings withBreadth(Breadth breadth) {
    return new GatewaySettings(ratePlans, notices, lineCapacity, timeZone, breadth);
  }
}
