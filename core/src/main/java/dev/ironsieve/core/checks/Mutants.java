package dev.ironsieve.core.checks;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Holder;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;

/** The mutants of a rulebase: which there are, and which connections show that one was made. */
final class Mutants {
  /** Random points that are tried before an exact search. */
  private static final int TRIES = 16;

  private final Order order;
  private final long steps;
  private final List<Mutant> all = new ArrayList<>();
  private final List<Integer> slots = new ArrayList<>(); // by mutant
  private final List<List<Box>> regions = new ArrayList<>(); // by mutant: where it could show
  private final int[] firstOf; // by position; one more for the end

  /**
   * @param steps of work that one search may take
   */
  Mutants(Order order, long steps) {
    this.order = order;
    this.steps = steps;
    firstOf = new int[order.size() + 1];
    for (int position = 0; position < order.size(); position++) {
      firstOf[position] = all.size();
      if (order.rule(order.slotAt(position)).isInForce()) {
        addAll(position);
      }
    }
    firstOf[order.size()] = all.size();
  }

  private void addAll(int position) {
    int slot = order.slotAt(position);
    Rule rule = order.rule(slot);
    List<Box> region = order.region(slot);
    add(new Mutant.OtherVerdict(rule.id()), slot, region);
    add(new Mutant.Disabled(rule.id()), slot, region);
    int next = next(position);
    if (next != Order.NONE && order.verdict(next) != rule.verdict()) {
      List<Box> shared = Box.shared(region, order.region(next));
      add(new Mutant.Swapped(rule.id(), order.rule(next).id()), slot, shared);
    }
    for (Mutant.Part part : Mutant.Part.values()) {
      if (part.isAskedBy(rule)) {
        Rule wider = part.leftOut(rule);
        List<Box> all = order.space().region(order.resolution().match(wider));
        add(new Mutant.Widened(rule.id(), part), slot, all);
      }
    }
  }

  private void add(Mutant mutant, int slot, List<Box> region) {
    all.add(mutant);
    slots.add(slot);
    regions.add(region);
  }

  private int next(int position) {
    for (int below = position + 1; below < order.size(); below++) {
      if (order.rule(order.slotAt(below)).isInForce()) {
        return order.slotAt(below);
      }
    }
    return Order.NONE;
  }

  int size() {
    return all.size();
  }

  Mutant get(int number) {
    return all.get(number);
  }

  /** Whether the mutant gives the point another verdict than the rulebase does. */
  private boolean shows(int number, int[] point, int first) {
    int slot = slots.get(number);
    return switch (all.get(number)) {
      case Mutant.OtherVerdict other -> first == slot;
      case Mutant.Disabled disabled ->
          first == slot && order.verdict(order.firstWithout(slot, point)) != order.verdict(slot);
      case Mutant.Swapped swapped ->
          first == slot && order.holds(order.slot(swapped.next()), point);
      case Mutant.Widened widened ->
          isBelow(first, slot)
              && order.verdict(first) != order.verdict(slot)
              && regions.get(number).stream().anyMatch(box -> box.contains(point));
    };
  }

  private boolean isBelow(int one, int other) {
    return one == Order.NONE || order.position(one) > order.position(other);
  }

  /** Numbers of the mutants that give a point another verdict; O(rules). */
  List<Integer> shownBy(int[] point) {
    List<Integer> out = new ArrayList<>();
    int first = order.first(point);
    int last = first == Order.NONE ? order.size() - 1 : order.position(first);
    for (int number = 0; number < firstOf[last + 1]; number++) {
      if (shows(number, point, first)) {
        out.add(number);
      }
    }
    return out;
  }

  /** A point that the mutant gives another verdict; or that there is none, or it is not known. */
  Outcome witness(int number) {
    List<Box> region = regions.get(number);
    SplittableRandom random = new SplittableRandom(number);
    for (int i = 0; i < TRIES && !region.isEmpty(); i++) {
      int[] point = order.space().pick(region.get(i % region.size()), random);
      if (shows(number, point, order.first(point))) {
        return new Outcome.Uncovered(point);
      }
    }
    int slot = slots.get(number);
    Budget budget = new Budget(steps);
    return switch (all.get(number)) {
      case Mutant.OtherVerdict other -> search(region, point -> unless(slot, point), budget);
      case Mutant.Swapped swapped -> search(region, point -> unless(slot, point), budget);
      case Mutant.Widened widened -> rivals(number, rival -> point -> unless(rival, point), budget);
      case Mutant.Disabled disabled ->
          rivals(
              number,
              rival ->
                  point -> {
                    int decides = order.firstWithout(slot, point);
                    return decides == rival ? Holder.NOBODY : decides;
                  },
              budget);
    };
  }

  private int unless(int wanted, int[] point) {
    int first = order.first(point);
    return first == wanted ? Holder.NOBODY : first;
  }

  private Outcome search(List<Box> region, Holder holder, Budget budget) {
    return CoverSearch.search(region, holder, order::region, budget);
  }

  /** Makes a holder that keeps a rival from deciding. */
  private interface KeptOff {
    Holder from(int rival);
  }

  /** Whether some rule below with another verdict, or the default rule, gets to the region. */
  private Outcome rivals(int number, KeptOff keptOff, Budget budget) {
    int slot = slots.get(number);
    List<Box> region = regions.get(number);
    int[] below = order.meeting(region, order.position(slot) + 1, order.size());
    for (int i = 0; i <= below.length; i++) {
      int rival = i == below.length ? Order.NONE : below[i];
      if (order.verdict(rival) != order.verdict(slot)) {
        List<Box> shared = rival == Order.NONE ? region : Box.shared(region, order.region(rival));
        Outcome outcome = search(shared, keptOff.from(rival), budget);
        if (!(outcome instanceof Outcome.Covered)) {
          return outcome;
        }
      }
    }
    return new Outcome.Covered(IntSet.EMPTY);
  }
}
