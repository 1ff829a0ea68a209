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
 * @param place its position; of one that was taken away, the position now of the first rule that
 *     stood below it and stayed
 * @param region its boxes
 * @param meeting slots of the enabled rules that are there now and meet it, by position; itself too
 */
record Event(int slot, boolean fresh, int place, List<Box> region, int[] meeting) {
  /** What an update did, first what it took away. */
  static List<Event> of(Order.Change change, Order order) {
    List<Event> events = new ArrayList<>();
    int[] fresh = change.fresh().stream().mapToInt(order::position).sorted().toArray();
    for (Map.Entry<Integer, Integer> gone : change.gone().entrySet()) {
      long goneAbove = change.gone().values().stream().filter(at -> at < gone.getValue()).count();
      int place = gone.getValue() - (int) goneAbove; // among those that stayed
      for (int other : fresh) {
        place += other <= place ? 1 : 0;
      }
      add(events, order, gone.getKey(), false, place);
    }
    for (int slot : change.fresh()) {
      add(events, order, slot, true, order.position(slot));
    }
    return events;
  }

  private static void add(List<Event> events, Order order, int slot, boolean fresh, int place) {
    if (order.rule(slot).isInForce()) {
      List<Box> region = order.region(slot);
      int[] meeting = order.meeting(region, 0, order.size());
      events.add(new Event(slot, fresh, place, region, meeting));
    }
  }
}
