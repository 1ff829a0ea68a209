package dev.ironsieve.core.reach;

import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * The matches of two rules side by side, as disjoint boxes: what both match, and what each matches
 * alone, whatever other rules take of it.
 *
 * @param shared what both match
 * @param firstAlone what only the first one matches
 * @param secondAlone what only the second one matches
 * @param complete whether these are all boxes
 */
public record RulePair(
    List<Box> shared, List<Box> firstAlone, List<Box> secondAlone, boolean complete) {
  /** Most boxes of one part. */
  static final int MOST = 200;

  public RulePair {
    shared = List.copyOf(shared);
    firstAlone = List.copyOf(firstAlone);
    secondAlone = List.copyOf(secondAlone);
  }

  /** Compares two rules, by their handles. O(boxes of the one · boxes of the other · axes). */
  public static RulePair of(RuleIndex index, int first, int second) {
    List<Box> one = index.region(first);
    List<Box> other = index.region(second);
    List<Box> shared = Box.shared(one, other);
    List<Box> firstAlone = without(one, other, index);
    List<Box> secondAlone = without(other, one, index);
    boolean complete =
        shared.size() <= MOST && firstAlone.size() <= MOST && secondAlone.size() <= MOST;
    return new RulePair(most(shared), most(firstAlone), most(secondAlone), complete);
  }

  private static List<Box> most(List<Box> boxes) {
    return boxes.subList(0, Math.min(MOST, boxes.size()));
  }

  /** The feasible part of some disjoint boxes that is in none of others. */
  private static List<Box> without(List<Box> boxes, List<Box> others, RuleIndex index) {
    List<Box> left = new ArrayList<>(boxes);
    for (Box other : others) {
      List<Box> next = new ArrayList<>();
      for (Box box : left) {
        cut(box, other, index, next);
      }
      left = next;
    }
    return left;
  }

  /** Adds the feasible parts of a box outside of another. */
  private static void cut(Box box, Box other, RuleIndex index, List<Box> out) {
    if (!box.intersects(other)) {
      out.add(box);
      return;
    }
    Box rest = box;
    for (int axis = 0; axis < box.axes(); axis++) {
      IntSet outside = rest.side(axis).minus(other.side(axis));
      if (!outside.isEmpty()) {
        Optional<Box> part = index.space().feasible(rest.with(axis, outside));
        part.ifPresent(out::add);
        rest = rest.with(axis, rest.side(axis).intersect(other.side(axis)));
      }
    }
  }
}
