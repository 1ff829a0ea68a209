package dev.ironsieve.core.analysis;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.space.Box;
import java.util.List;

/** Containment of regions without a work limit. */
final class Regions {
  private Regions() {}

  static boolean holdsAll(List<Box> outer, List<Box> inner) {
    return Containment.of(inner, outer, new Budget(Long.MAX_VALUE)) == Containment.INSIDE;
  }
}
