package dev.ironsieve.core.model;

import java.time.ZoneId;
import java.util.List;

/**
 * Settings of the gateway and its rulebase that match nothing: rate plans, notices, the capacity of
 * the line, the time zone.
 *
 * @param lineCapacity null if unknown
 * @param timeZone the default time zone of times in rules
 * @param breadth the settings of the finding <i>too broad</i>
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
