package dev.ironsieve.core.analysis;

import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * A rule that an update removed or added, and that may decide something.
 *
 * @param fresh whether it was brought
 * @param place its position; of one that was taken away, the position now of the first rule that
 *     stood below it and stayed
 * @param region its boxes
 * @param overlapping handles of the enabled rules that are there now and meet it, by position;
 *     itself too
 */
record IndexChange(int handle, boolean fresh, int place, List<Box> region, int[] overlapping) {
  /** The changes of an update, removals first. */
  static List<IndexChange> of(RuleIndex.Change change, RuleIndex index) {
    List<IndexChange> events = new ArrayList<>();
    int[] fresh = change.fresh().stream().mapToInt(index::position).sorted().toArray();
    for (Map.Entry<Integer, Integer> gone : change.gone().entrySet()) {
      long goneAbove = change.gone().values().stream().filter(at -> at < gone.getValue()).count();
      int place = gone.getValue() - (int) goneAbove; // among those that stayed
      for (int other : fresh) {
        place += other <= place ? 1 : 0;
      }
      add(events, index, gone.getKey(), false, place);
    }
    for (int handle : change.fresh()) {
      add(events, index, handle, true, index.position(handle));
    }
    return events;
  }

  private static void add(
      List<IndexChange> events, RuleIndex index, int handle, boolean fresh, int place) {
    if (index.rule(handle).isInForce()) {
      List<Box> region = index.region(handle);
      int[] overlapping = index.overlapping(region, 0, index.size());
      events.add(new IndexChange(handle, fresh, place, region, overlapping));
    }
  }
}
