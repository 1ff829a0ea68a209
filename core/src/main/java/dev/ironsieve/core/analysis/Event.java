package dev.ironsieve.core.analysis;

import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * A rule that an update of the order took away or brought, and that may decide something.
 *
 * @param fresh whether it was brought
 * @param rank its position; of one that was taken away, how many of those that stayed stood above
 * @param region its boxes
 * @param meeting slots of the enabled rules that are there now and meet it, by position; itself too
 */
record Event(int slot, boolean fresh, int rank, List<Box> region, int[] meeting) {
  /** What an update did, first what it took away. */
  static List<Event> of(Order.Change change, Order order) {
    List<Event> events = new ArrayList<>();
    for (Map.Entry<Integer, Integer> gone : change.gone().entrySet()) {
      long goneAbove =
          change.gone().values().stream().filter(place -> place < gone.getValue()).count();
      add(events, order, gone.getKey(), false, gone.getValue() - (int) goneAbove);
    }
    for (int slot : change.fresh()) {
      add(events, order, slot, true, order.position(slot));
    }
    return events;
  }

  private static void add(List<Event> events, Order order, int slot, boolean fresh, int rank) {
    if (order.rule(slot).enabled()) {
      List<Box> region = order.region(slot);
      int[] meeting = order.meeting(region, 0, order.size());
      events.add(new Event(slot, fresh, rank, region, meeting));
    }
  }
}
