package dev.ironsieve.core.matcher;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.matcher.PossibleDecisions.Decision;
import dev.ironsieve.core.matcher.Trace.CriterionName;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Completions;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;

/**
 * Finds every rule that decides a completion of an incomplete connection: from the first rule to
 * the first that holds for all completions. Exact, within a budget for the whole search.
 */
final class PossibleDecisionSearch {
  private final RuleIndex index;
  private final Space space;
  private final Completions completions;
  private final Budget budget;

  private PossibleDecisionSearch(RuleIndex index, Completions completions, long steps) {
    this.index = index;
    this.space = index.space();
    this.completions = completions;
    this.budget = new Budget(steps);
  }

  static PossibleDecisions of(RuleIndex index, Completions completions, long steps) {
    return new PossibleDecisionSearch(index, completions, steps).run();
  }

  private PossibleDecisions run() {
    List<Decision> out = new ArrayList<>();
    boolean complete = true;
    List<Box> all = completions.boxes();
    if (all.isEmpty()) {
      return new PossibleDecisions(out, true);
    }
    int[] rules = index.overlapping(all, 0, index.size());
    for (int i = 0; i <= rules.length; i++) {
      int handle = i == rules.length ? RuleIndex.NONE : rules[i];
      List<Box> shared = handle == RuleIndex.NONE ? all : Box.shared(all, index.region(handle));
      switch (decided(handle, shared)) {
        case Outcome.Uncovered found -> out.add(decision(handle, found.point()));
        case Outcome.Covered covered -> {}
        case Outcome.Exhausted exhausted -> complete = false;
      }
      if (handle != RuleIndex.NONE && holdsAll(index.region(handle))) {
        break; // nothing gets past it
      }
    }
    return new PossibleDecisions(out, complete);
  }

  /** A point that a rule decides, tried at the corners of each box first. */
  private Outcome decided(int handle, List<Box> shared) {
    for (Box box : shared) {
      int[] corner = box.lowest();
      if (index.first(corner) == handle) {
        return new Outcome.Uncovered(corner);
      }
    }
    return CoverSearch.search(shared, point -> otherThan(handle, point), index::region, budget);
  }

  private int otherThan(int handle, int[] point) {
    int first = index.first(point);
    return first == handle ? CoverSearch.Holder.NOBODY : first;
  }

  private boolean holdsAll(List<Box> region) {
    for (Box box : completions.boxes()) {
      boolean held = false;
      for (Box own : region) {
        held |= own.containsAll(box);
      }
      if (!held) {
        return false;
      }
    }
    return true;
  }

  private Decision decision(int handle, int[] point) {
    Rule rule = handle == RuleIndex.NONE ? null : index.rule(handle);
    return new Decision(
        rule,
        rule == null ? Set.of() : dependsOn(rule, index.region(handle)),
        completions.at(point, space));
  }

  /** The parts that a rule narrows among the connections. */
  private Set<CriterionName> dependsOn(Rule rule, List<Box> region) {
    Set<CriterionName> out = EnumSet.noneOf(CriterionName.class);
    for (int axis = 0; axis < space.axes(); axis++) {
      if (!completions.isFree(axis, space) || !narrows(region, axis)) {
        continue;
      }
      switch (axis) {
        case Space.FROM -> {
          add(out, CriterionName.FROM_ZONE, !rule.fromZones().isAny());
          add(out, CriterionName.FROM_ADDRESS, !rule.fromAddresses().isAny());
        }
        case Space.TO -> {
          add(out, CriterionName.TO_ZONE, !rule.toZones().isAny());
          add(out, CriterionName.TO_ADDRESS, !rule.toAddresses().isAny());
        }
        case Space.SERVICE, Space.SOURCE_PORT -> out.add(CriterionName.SERVICE);
        default ->
            out.add(
                CriterionName.of(
                    index.resolution().vocabularies().get(axis - Space.TERMS).coordinate()));
      }
    }
    return out;
  }

  private static void add(Set<CriterionName> out, CriterionName part, boolean asked) {
    if (asked) {
      out.add(part);
    }
  }

  private boolean narrows(List<Box> region, int axis) {
    for (Box box : completions.boxes()) {
      for (Box own : region) {
        if (!own.side(axis).containsAll(box.side(axis))) {
          return true;
        }
      }
    }
    return false;
  }
}
