package dev.ironsieve.core.space;

import dev.ironsieve.core.sets.IntSet;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/**
 * Two spaces with the same classes, but other labels, and what is said in the labels of the one in
 * those of the other.
 */
public final class Spread {
  private final Space from;
  private final Space to;

  Spread(Space from, Space to) {
    this.from = from;
    this.to = to;
  }

  public Space to() {
    return to;
  }

  /** The point of the other space that holds the connections of a point. */
  public int[] point(int[] point) {
    int[] out = new int[point.length];
    for (int axis = 0; axis < out.length; axis++) {
      out[axis] = to.here(axis, point[axis], from);
    }
    return out;
  }

  /** Regions in the other space, in their order. */
  public List<List<Box>> regions(List<List<Box>> regions) {
    List<Box> boxes = regions.stream().flatMap(List::stream).toList();
    IntSet[][] sides = new IntSet[boxes.size()][from.axes()];
    IntStream.range(0, from.axes())
        .parallel()
        .forEach(
            axis -> {
              Map<IntSet, IntSet> known = new IdentityHashMap<>();
              for (int box = 0; box < sides.length; box++) {
                sides[box][axis] =
                    known.computeIfAbsent(
                        boxes.get(box).side(axis), side -> to.here(axis, side, from));
              }
            });
    List<List<Box>> out = new ArrayList<>(regions.size());
    int next = 0;
    for (List<Box> region : regions) {
      List<Box> moved = new ArrayList<>(region.size());
      for (int i = 0; i < region.size(); i++) {
        moved.add(new Box(sides[next++]));
      }
      out.add(moved);
    }
    return out;
  }
}
