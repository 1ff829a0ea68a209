package dev.ironsieve.core.matcher;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.matcher.PossibleDecisions.Decision;
import dev.ironsieve.core.matcher.Trace.Part;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.order.Order;
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
  private final Order order;
  private final Space space;
  private final Completions completions;
  private final Budget budget;

  private PossibleDecisionSearch(Order order, Completions completions, long steps) {
    this.order = order;
    this.space = order.space();
    this.completions = completions;
    this.budget = new Budget(steps);
  }

  static PossibleDecisions of(Order order, Completions completions, long steps) {
    return new PossibleDecisionSearch(order, completions, steps).run();
  }

  private PossibleDecisions run() {
    List<Decision> out = new ArrayList<>();
    boolean complete = true;
    List<Box> all = completions.boxes();
    if (all.isEmpty()) {
      return new PossibleDecisions(out, true);
    }
    int[] rules = order.meeting(all, 0, order.size());
    for (int i = 0; i <= rules.length; i++) {
      int slot = i == rules.length ? Order.NONE : rules[i];
      List<Box> shared = slot == Order.NONE ? all : Box.shared(all, order.region(slot));
      switch (decided(slot, shared)) {
        case Outcome.Uncovered found -> out.add(decision(slot, found.point()));
        case Outcome.Covered covered -> {}
        case Outcome.Exhausted exhausted -> complete = false;
      }
      if (slot != Order.NONE && holdsAll(order.region(slot))) {
        break; // nothing gets past it
      }
    }
    return new PossibleDecisions(out, complete);
  }

  /** A point that a rule decides, tried at the corners of each box first. */
  private Outcome decided(int slot, List<Box> shared) {
    for (Box box : shared) {
      int[] corner = box.lowest();
      if (order.first(corner) == slot) {
        return new Outcome.Uncovered(corner);
      }
    }
    return CoverSearch.search(shared, point -> otherThan(slot, point), order::region, budget);
  }

  private int otherThan(int slot, int[] point) {
    int first = order.first(point);
    return first == slot ? CoverSearch.Holder.NOBODY : first;
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

  private Decision decision(int slot, int[] point) {
    Rule rule = slot == Order.NONE ? null : order.rule(slot);
    return new Decision(
        rule,
        rule == null ? Set.of() : dependsOn(rule, order.region(slot)),
        completions.at(point, space));
  }

  /** The parts that a rule narrows among the connections. */
  private Set<Part> dependsOn(Rule rule, List<Box> region) {
    Set<Part> out = EnumSet.noneOf(Part.class);
    for (int axis = 0; axis < space.axes(); axis++) {
      if (!completions.isFree(axis, space) || !narrows(region, axis)) {
        continue;
      }
      switch (axis) {
        case Space.FROM -> {
          add(out, Part.FROM_ZONE, !rule.fromZones().isAny());
          add(out, Part.FROM_ADDRESS, !rule.fromAddresses().isAny());
        }
        case Space.TO -> {
          add(out, Part.TO_ZONE, !rule.toZones().isAny());
          add(out, Part.TO_ADDRESS, !rule.toAddresses().isAny());
        }
        case Space.SERVICE, Space.SOURCE_PORT -> out.add(Part.SERVICE);
        default ->
            out.add(
                Part.of(order.resolution().vocabularies().get(axis - Space.TERMS).coordinate()));
      }
    }
    return out;
  }

  private static void add(Set<Part> out, Part part, boolean asked) {
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
