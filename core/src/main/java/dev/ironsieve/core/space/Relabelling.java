package dev.ironsieve.core.space;

import dev.ironsieve.core.sets.IntSet;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/**
 * The translation of points and regions between two spaces with the same classes, but other codes
 * on some axes.
 */
public final class Relabelling {
  private final Space from;
  private final Space to;
  private final int[] axes; // with other codes

  Relabelling(Space from, Space to) {
    this.from = from;
    this.to = to;
    axes = IntStream.range(0, from.axes()).filter(axis -> !to.shares(axis, from)).toArray();
  }

  public Space to() {
    return to;
  }

  /** The axes with other codes. */
  public int[] axes() {
    return axes.clone();
  }

  /** The point of the other space that holds the connections of a point. */
  public int[] point(int[] point) {
    int[] out = point.clone();
    for (int axis : axes) {
      out[axis] = to.here(axis, point[axis], from);
    }
    return out;
  }

  /** Regions in the other space, in their order. */
  public List<List<Box>> regions(List<List<Box>> regions) {
    List<Map<IntSet, IntSet>> known = new ArrayList<>();
    for (int i = 0; i < axes.length; i++) {
      known.add(new IdentityHashMap<>());
    }
    List<List<Box>> out = new ArrayList<>(regions.size());
    for (List<Box> region : regions) {
      List<Box> moved = new ArrayList<>(region.size());
      for (Box box : region) {
        Box other = box;
        for (int i = 0; i < axes.length; i++) {
          int axis = axes[i];
          IntSet side =
              known.get(i).computeIfAbsent(box.side(axis), codes -> to.here(axis, codes, from));
          other = other.with(axis, side);
        }
        moved.add(other);
      }
      out.add(moved);
    }
    return out;
  }
}
