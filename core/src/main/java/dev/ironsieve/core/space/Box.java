package dev.ironsieve.core.space;

import dev.ironsieve.core.sets.IntSet;
import java.util.Arrays;
import java.util.Optional;

/**
 * A product of one non-empty set of classes for each axis.
 *
 * <p>Each side carries a sketch of 64 bits, a bit for each 64th of the axis that it touches: two
 * sides whose sketches share no bit share no class.
 */
public final class Box {
  private final IntSet[] sides;
  private final long[] sketches;

  Box(IntSet[] sides, long[] sketches) {
    this.sides = sides;
    this.sketches = sketches;
  }

  /** The set of classes on axis {@code axis}. */
  public IntSet side(int axis) {
    return sides[axis];
  }

  /** A copy of the sides, free to be changed. */
  public IntSet[] sides() {
    return sides.clone();
  }

  public boolean intersects(Box other) {
    for (int axis = 0; axis < sides.length; axis++) {
      if ((sketches[axis] & other.sketches[axis]) == 0) {
        return false;
      }
    }
    for (int axis = 0; axis < sides.length; axis++) {
      if (sides[axis] != other.sides[axis] && !sides[axis].intersects(other.sides[axis])) {
        return false;
      }
    }
    return true;
  }

  public int axes() {
    return sides.length;
  }

  /** What both hold. Its sketches are as coarse as those it comes from. */
  public Optional<Box> intersection(Box other) {
    IntSet[] both = new IntSet[sides.length];
    long[] sketch = new long[sides.length];
    for (int axis = 0; axis < both.length; axis++) {
      both[axis] = sides[axis].intersect(other.sides[axis]);
      sketch[axis] = sketches[axis] & other.sketches[axis];
      if (both[axis].isEmpty()) {
        return Optional.empty();
      }
    }
    return Optional.of(new Box(both, sketch));
  }

  /** Whether the point with class {@code point[axis]} on each axis is inside. */
  public boolean contains(int[] point) {
    for (int axis = 0; axis < sides.length; axis++) {
      if (!sides[axis].contains(point[axis])) {
        return false;
      }
    }
    return true;
  }

  static long sketch(IntSet side, int classes) {
    long sketch = 0;
    for (int i = 0; i < side.intervals(); i++) {
      int from = (int) (side.first(i) * 64L / classes);
      int to = (int) (side.last(i) * 64L / classes);
      sketch |= (-1L << from) & (-1L >>> (63 - to));
    }
    return sketch;
  }

  @Override
  public String toString() {
    return Arrays.toString(sides);
  }
}
