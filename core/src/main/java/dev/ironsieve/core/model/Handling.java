package dev.ironsieve.core.model;

import java.util.List;

/**
 * What rules can say of connections beyond the verdict: how much of the line they get, and what
 * people are told.
 *
 * @param lineCapacity how much the line carries; null if nobody said so
 */
public record Handling(List<RatePlan> ratePlans, List<Notice> notices, Rate lineCapacity) {
  public static final Handling NONE = new Handling(List.of(), List.of(), null);

  public Handling {
    ratePlans = List.copyOf(ratePlans);
    notices = List.copyOf(notices);
  }

  public Handling withRatePlans(List<RatePlan> ratePlans) {
    return new Handling(ratePlans, notices, lineCapacity);
  }

  public Handling withNotices(List<Notice> notices) {
    return new Handling(ratePlans, notices, lineCapacity);
  }

  public Handling withLineCapacity(Rate lineCapacity) {
    return new Handling(ratePlans, notices, lineCapacity);
  }
}
