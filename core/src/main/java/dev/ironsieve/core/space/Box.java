package dev.ironsieve.core.space;

import dev.ironsieve.core.sets.IntSet;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** A product of one non-empty set of codes for each axis. */
public final class Box {
  private final IntSet[] sides;

  /** The caller gives {@code sides} away. */
  public Box(IntSet[] sides) {
    for (IntSet side : sides) {
      if (side.isEmpty()) {
        throw new IllegalArgumentException("an empty side: " + Arrays.toString(sides));
      }
    }
    this.sides = sides;
  }

  /** The set of codes on axis {@code axis}. */
  public IntSet side(int axis) {
    return sides[axis];
  }

  public int axes() {
    return sides.length;
  }

  /** The same box with another side. */
  public Box with(int axis, IntSet side) {
    IntSet[] changed = sides.clone();
    changed[axis] = side;
    return new Box(changed);
  }

  public boolean intersects(Box other) {
    for (int axis = 0; axis < sides.length; axis++) {
      if (sides[axis] != other.sides[axis] && !sides[axis].intersects(other.sides[axis])) {
        return false;
      }
    }
    return true;
  }

  /** Whether every point of {@code other} is in this. */
  public boolean containsAll(Box other) {
    for (int axis = 0; axis < sides.length; axis++) {
      if (sides[axis] != other.sides[axis] && !sides[axis].containsAll(other.sides[axis])) {
        return false;
      }
    }
    return true;
  }

  /** The intersection. */
  public Optional<Box> intersection(Box other) {
    IntSet[] both = new IntSet[sides.length];
    for (int axis = 0; axis < both.length; axis++) {
      IntSet one = sides[axis];
      IntSet two = other.sides[axis];
      // The same object where one is inside the other, for whoever compares by identity.
      both[axis] =
          one == two || two.containsAll(one)
              ? one
              : one.containsAll(two) ? two : one.intersect(two);
      if (both[axis].isEmpty()) {
        return Optional.empty();
      }
    }
    return Optional.of(new Box(both));
  }

  /** The intersection of two regions, as boxes; disjoint if the boxes of each region are. */
  public static List<Box> shared(List<Box> one, List<Box> other) {
    List<Box> out = new ArrayList<>();
    for (Box a : one) {
      for (Box b : other) {
        a.intersection(b).ifPresent(out::add);
      }
    }
    return out;
  }

  /** Whether the point with code {@code point[axis]} on each axis is inside. */
  public boolean contains(int[] point) {
    for (int axis = 0; axis < sides.length; axis++) {
      if (!sides[axis].contains(point[axis])) {
        return false;
      }
    }
    return true;
  }

  /** The point with the lowest code on each axis. */
  public int[] lowest() {
    int[] point = new int[sides.length];
    for (int axis = 0; axis < sides.length; axis++) {
      point[axis] = sides[axis].min();
    }
    return point;
  }

  @Override
  public boolean equals(Object o) {
    return o instanceof Box other && Arrays.equals(sides, other.sides);
  }

  @Override
  public int hashCode() {
    return Arrays.hashCode(sides);
  }

  @Override
  public String toString() {
    return Arrays.toString(sides);
  }
}
