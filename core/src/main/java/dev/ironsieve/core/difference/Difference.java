package dev.ironsieve.core.difference;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.List;
import java.util.Optional;

/**
 * The connections that two rulebases decide otherwise.
 *
 * @param space what both rulebases were laid into
 * @param parts disjoint; the largest first
 * @param complete whether these are all; if not, the budget of work ran out
 */
public record Difference(Space space, List<Part> parts, boolean complete) {

  /**
   * Connections of one box, which one rule decided before and another decides after.
   *
   * @param box in the difference's space
   * @param share how much of everything the box is, each class of each axis counting the same: 0 to
   *     1
   * @param before the rule that decided before, or null for the closing rule
   * @param after the rule that decides after, or null for the closing rule
   * @param witness one of the connections
   * @param sides for people: what the box asks for on each axis that it narrows
   */
  public record Part(
      Box box, double share, Rule before, Rule after, Connection witness, List<String> sides) {}

  /** The part that a wholly known connection is in. */
  public Optional<Part> part(Connection connection) {
    int[] point = space.point(connection);
    return point == null
        ? Optional.empty()
        : parts.stream().filter(part -> part.box().contains(point)).findFirst();
  }

  /** Whether nothing is decided otherwise, for certain. */
  public boolean isEmpty() {
    return parts.isEmpty() && complete;
  }
}
