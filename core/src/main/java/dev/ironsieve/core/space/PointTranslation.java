package dev.ironsieve.core.space;

import dev.ironsieve.core.model.Rule;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;

/** Translates points of a space into another space in which the same rules hold. */
final class PointTranslation {
  private final Space space;

  PointTranslation(Space space) {
    this.space = space;
  }

  /**
   * For each point here a point of another space that the same rules hold.
   *
   * @param other over the same zones, addresses, services and coordinates
   * @param rules whose names mean the same in both
   * @return empty if a point may have none there
   */
  Optional<UnaryOperator<int[]>> pointsIn(Space other, List<Rule> rules) {
    int[][] values = new int[space.terms.length][];
    for (int i = 0; i < values.length; i++) {
      values[i] = space.resolution.valuesIn(other.resolution, i, rules);
      if (values[i] != null && Arrays.stream(values[i]).anyMatch(value -> value < 0)) {
        return Optional.empty();
      }
    }
    return Optional.of(point -> pointIn(other, point, values));
  }

  private int[] pointIn(Space other, int[] point, int[][] values) {
    int[] out = point.clone();
    if (!space.shares(Space.FROM, other)) {
      out[Space.FROM] = space.from.codeIn(other.from, point[Space.FROM]);
    }
    if (!space.shares(Space.TO, other)) {
      out[Space.TO] = space.to.codeIn(other.to, point[Space.TO]);
    }
    if (!space.shares(Space.SERVICE, other)) {
      out[Space.SERVICE] = other.services.codeOf(space.services.value(point[Space.SERVICE]));
    }
    if (!space.shares(Space.SOURCE_PORT, other)) {
      out[Space.SOURCE_PORT] =
          other.sourcePorts.codeOf(space.sourcePorts.value(point[Space.SOURCE_PORT]));
    }
    for (int i = 0; i < space.terms.length; i++) {
      if (!space.shares(Space.TERMS + i, other)) {
        int value = space.terms[i].value(point[Space.TERMS + i]);
        out[Space.TERMS + i] = other.terms[i].codeOf(values[i] == null ? value : values[i][value]);
      }
    }
    return out;
  }
}
