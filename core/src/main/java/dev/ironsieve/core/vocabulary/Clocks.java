package dev.ironsieve.core.vocabulary;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.zone.ZoneOffsetTransition;
import java.util.List;
import java.util.NavigableMap;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * The difference between the clocks of another time zone and the gateway's, from 2020 to 2039;
 * before and after, as at these ends. Of an hour that the gateway's clocks show twice, the second
 * is meant.
 */
final class Clocks {
  private static final Instant FIRST = Instant.parse("2020-01-01T00:00:00Z");
  private static final Instant END = Instant.parse("2040-01-01T00:00:00Z");

  private final ZoneId gateway;
  private final ZoneId other;
  private final int first; // minutes ahead before any change
  private final NavigableMap<LocalDateTime, Integer> after = new TreeMap<>(); // by gateway's time

  private Clocks(ZoneId gateway, ZoneId other) {
    this.gateway = gateway;
    this.other = other;
    first = ahead(FIRST);
    if (!gateway.getRules().equals(other.getRules())) {
      TreeSet<Instant> instants = new TreeSet<>();
      addChanges(gateway, instants);
      addChanges(other, instants);
      int before = first;
      for (Instant instant : instants) {
        int now = ahead(instant);
        if (now != before) {
          after.put(LocalDateTime.ofInstant(instant, gateway), now);
        }
        before = now;
      }
    }
  }

  /**
   * @param other null for the gateway's
   */
  static Clocks between(ZoneId gateway, ZoneId other) {
    return new Clocks(gateway, other == null ? gateway : other);
  }

  private static void addChanges(ZoneId zone, Set<Instant> out) {
    ZoneOffsetTransition next = zone.getRules().nextTransition(FIRST);
    while (next != null && next.getInstant().isBefore(END)) {
      out.add(next.getInstant());
      next = zone.getRules().nextTransition(next.getInstant());
    }
  }

  private int ahead(Instant at) {
    ZoneOffset there = other.getRules().getOffset(at);
    ZoneOffset here = gateway.getRules().getOffset(at);
    return Math.floorDiv(there.getTotalSeconds() - here.getTotalSeconds(), 60);
  }

  /** Minutes that the other's clocks are ahead, by the gateway's time. */
  int ahead(LocalDateTime here) {
    var entry = after.floorEntry(here);
    return entry == null ? first : entry.getValue();
  }

  /** Every number of minutes that they are ever ahead. */
  Set<Integer> allAhead() {
    Set<Integer> out = new TreeSet<>(after.values());
    out.add(first);
    return out;
  }

  /** When that changes, by the gateway's time. */
  List<LocalDateTime> changes() {
    return List.copyOf(after.keySet());
  }

  /** The gateway's local time at a local time of the other zone. */
  LocalDateTime here(LocalDateTime there) {
    for (var change : after.descendingMap().entrySet()) {
      LocalDateTime here = there.minusMinutes(change.getValue());
      if (!here.isBefore(change.getKey())) {
        return here;
      }
    }
    return there.minusMinutes(first);
  }
}
