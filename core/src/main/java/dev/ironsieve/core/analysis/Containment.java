package dev.ironsieve.core.analysis;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Candidate;
import dev.ironsieve.core.space.Box;
import java.util.List;

/** Whether every connection of one region is in another. */
enum Containment {
  INSIDE,
  NOT_INSIDE,
  /** The work limit was reached before it was settled. */
  UNKNOWN;

  /**
   * O(boxes of one · boxes of the other) where single boxes settle it; else an exact search.
   *
   * @param inner disjoint boxes
   * @param outer disjoint boxes
   */
  static Containment of(List<Box> inner, List<Box> outer, Budget budget) {
    Containment all = INSIDE;
    for (Box box : inner) {
      switch (of(box, outer, budget)) {
        case INSIDE -> {}
        case NOT_INSIDE -> {
          return NOT_INSIDE;
        }
        case UNKNOWN -> all = UNKNOWN;
      }
    }
    return all;
  }

  private static Containment of(Box box, List<Box> outer, Budget budget) {
    int overlapping = 0;
    for (Box candidate : outer) {
      if (candidate.containsAll(box)) {
        return INSIDE;
      }
      overlapping += candidate.intersects(box) ? 1 : 0;
    }
    if (overlapping < 2) {
      return NOT_INSIDE; // one box that does not hold it is not enough
    }
    List<Candidate> candidates = outer.stream().map(o -> new Candidate(0, o)).toList();
    return switch (CoverSearch.search(List.of(box), candidates, budget)) {
      case CoverSearch.Outcome.Covered covered -> INSIDE;
      case CoverSearch.Outcome.Uncovered uncovered -> NOT_INSIDE;
      case CoverSearch.Outcome.Exhausted exhausted -> UNKNOWN;
    };
  }
}
