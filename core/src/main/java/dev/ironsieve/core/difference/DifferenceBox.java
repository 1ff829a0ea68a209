package dev.ironsieve.core.difference;

import dev.ironsieve.core.difference.Difference.Extent;
import dev.ironsieve.core.space.Box;

/**
 * A part of a difference under construction.
 *
 * @param was the answer on one side
 * @param is the answer on the other
 * @param point one of its points
 * @param share of the box, 0 to 1
 */
record DifferenceBox(Box box, Extent extent, Object was, Object is, int[] point, double share) {

  /** The same as the other side sees it. */
  DifferenceBox turned() {
    Extent seen = extent == Extent.DECIDED_BEFORE ? Extent.DECIDED_AFTER : extent;
    return new DifferenceBox(box, seen, is, was, point, share);
  }

  /** The same with another box. */
  DifferenceBox within(Box other) {
    return new DifferenceBox(other, extent, was, is, point, share);
  }
}
