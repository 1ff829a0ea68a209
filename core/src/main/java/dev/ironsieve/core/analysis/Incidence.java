package dev.ironsieve.core.analysis;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * For each class of each axis, which boxes hold it, as bit rows: a point is in box b iff bit b is
 * set in the row of its class on every axis. Boxes stand in the order of their rules.
 */
final class Incidence {
  private final int words;
  private final long[][][] rows; // [axis][class][word]

  Incidence(Space space, List<Box> boxes) {
    words = (boxes.size() + 63) / 64;
    rows = new long[space.axes()][][];
    for (int axis = 0; axis < rows.length; axis++) {
      Map<IntSet, long[]> bySide = new HashMap<>();
      for (int box = 0; box < boxes.size(); box++) {
        bySide.computeIfAbsent(boxes.get(box).side(axis), s -> new long[words])[box >> 6] |=
            1L << box;
      }
      rows[axis] = new long[space.classes(axis)][words];
      long[][] axisRows = rows[axis];
      bySide.forEach(
          (side, held) ->
              side.forEach(
                  c -> {
                    long[] row = axisRows[c];
                    for (int word = 0; word < words; word++) {
                      row[word] |= held[word];
                    }
                  }));
    }
  }

  /** Whether one of the first {@code boxes} boxes holds {@code point}. */
  boolean heldBefore(int boxes, int[] point) {
    for (int word = 0; word * 64 < boxes; word++) {
      long held = boxes - word * 64 >= 64 ? -1L : (1L << boxes) - 1;
      for (int axis = 0; axis < rows.length && held != 0; axis++) {
        held &= rows[axis][point[axis]][word];
      }
      if (held != 0) {
        return true;
      }
    }
    return false;
  }

  /** How many of the first {@code boxes} boxes hold class {@code c} on {@code axis}. */
  int weight(int boxes, int axis, int c) {
    int weight = 0;
    long[] row = rows[axis][c];
    for (int word = 0; word * 64 < boxes; word++) {
      long mask = boxes - word * 64 >= 64 ? -1L : (1L << boxes) - 1;
      weight += Long.bitCount(row[word] & mask);
    }
    return weight;
  }
}
