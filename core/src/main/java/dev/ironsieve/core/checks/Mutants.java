package dev.ironsieve.core.checks;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Holder;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;

/** The mutants of a rulebase: which there are, and which connections show that one was made. */
final class Mutants {
  /** Random points that are tried before an exact search. */
  private static final int TRIES = 16;

  private final RuleIndex index;
  private final long steps;
  private final List<Mutant> all = new ArrayList<>();
  private final List<Integer> handles = new ArrayList<>(); // by mutant
  private final List<List<Box>> regions = new ArrayList<>(); // by mutant: where it could show
  private final Set<Integer> notTold = new HashSet<>(); // mutants whose region is not known
  private final int[] firstOf; // by position; one more for the end

  /**
   * @param steps of work that one search may take
   * @param rules ids of the rules in which a mistake may be made; null for all
   */
  Mutants(RuleIndex index, long steps, Set<String> rules) {
    this.index = index;
    this.steps = steps;
    firstOf = new int[index.size() + 1];
    for (int position = 0; position < index.size(); position++) {
      firstOf[position] = all.size();
      Rule rule = index.rule(index.handleAt(position));
      if (rule.isInForce() && (rules == null || rules.contains(rule.id()))) {
        addAll(position);
      }
    }
    firstOf[index.size()] = all.size();
  }

  private void addAll(int position) {
    int handle = index.handleAt(position);
    Rule rule = index.rule(handle);
    List<Box> own = index.region(handle);
    add(new Mutant.OtherVerdict(rule.id()), handle, own);
    add(new Mutant.Disabled(rule.id()), handle, own);
    int next = next(position);
    if (next != RuleIndex.NONE && index.verdict(next) != rule.verdict()) {
      List<Box> shared = Box.shared(own, index.region(next));
      add(new Mutant.Swapped(rule.id(), index.rule(next).id()), handle, shared);
    }
    for (Mutant.DroppedCriterion part : Mutant.DroppedCriterion.values()) {
      if (part.isAskedBy(rule)) {
        Rule wider = part.leftOut(rule);
        Optional<List<Box>> region = index.space().region(index.resolution().match(wider));
        if (region.isEmpty()) {
          notTold.add(all.size()); // the index has no room to tell it apart
        }
        add(new Mutant.Widened(rule.id(), part), handle, region.orElse(List.of()));
      }
    }
  }

  private void add(Mutant mutant, int handle, List<Box> region) {
    all.add(mutant);
    handles.add(handle);
    regions.add(region);
  }

  private int next(int position) {
    for (int below = position + 1; below < index.size(); below++) {
      if (index.rule(index.handleAt(below)).isInForce()) {
        return index.handleAt(below);
      }
    }
    return RuleIndex.NONE;
  }

  int size() {
    return all.size();
  }

  Mutant get(int number) {
    return all.get(number);
  }

  /** Whether the mutant gives the point another verdict than the rulebase does. */
  private boolean shows(int number, int[] point, int first) {
    int handle = handles.get(number);
    return switch (all.get(number)) {
      case Mutant.OtherVerdict other -> first == handle;
      case Mutant.Disabled disabled ->
          first == handle
              && index.verdict(index.firstWithout(handle, point)) != index.verdict(handle);
      case Mutant.Swapped swapped ->
          first == handle && index.holds(index.handle(swapped.next()), point);
      case Mutant.Widened widened ->
          isBelow(first, handle)
              && index.verdict(first) != index.verdict(handle)
              && regions.get(number).stream().anyMatch(box -> box.contains(point));
    };
  }

  private boolean isBelow(int one, int other) {
    return one == RuleIndex.NONE || index.position(one) > index.position(other);
  }

  /** Numbers of the mutants that give a point another verdict; O(rules). */
  List<Integer> shownBy(int[] point) {
    List<Integer> out = new ArrayList<>();
    int first = index.first(point);
    int last = first == RuleIndex.NONE ? index.size() - 1 : index.position(first);
    for (int number = 0; number < firstOf[last + 1]; number++) {
      if (shows(number, point, first)) {
        out.add(number);
      }
    }
    return out;
  }

  /** A point that the mutant gives another verdict; or that there is none, or it is not known. */
  Outcome witness(int number) {
    return notTold.contains(number)
        ? new Outcome.Exhausted()
        : witness(number, regions.get(number));
  }

  /** Whether the mutant gives some point of a region another verdict; false if not known. */
  boolean showsIn(int number, List<Box> region) {
    List<Box> shared = Box.shared(regions.get(number), region);
    return !shared.isEmpty() && witness(number, shared) instanceof Outcome.Uncovered;
  }

  /**
   * @param region where it is looked for, within that of the mutant
   */
  private Outcome witness(int number, List<Box> region) {
    SplittableRandom random = new SplittableRandom(number);
    for (int i = 0; i < TRIES && !region.isEmpty(); i++) {
      int[] point = index.space().pick(region.get(i % region.size()), random);
      if (shows(number, point, index.first(point))) {
        return new Outcome.Uncovered(point);
      }
    }
    int handle = handles.get(number);
    Budget budget = new Budget(steps);
    return switch (all.get(number)) {
      case Mutant.OtherVerdict other -> search(region, point -> unless(handle, point), budget);
      case Mutant.Swapped swapped -> search(region, point -> unless(handle, point), budget);
      case Mutant.Widened widened ->
          rivals(handle, region, rival -> point -> unless(rival, point), budget);
      case Mutant.Disabled disabled ->
          rivals(
              handle,
              region,
              rival ->
                  point -> {
                    int decides = index.firstWithout(handle, point);
                    return decides == rival ? Holder.NOBODY : decides;
                  },
              budget);
    };
  }

  private int unless(int wanted, int[] point) {
    int first = index.first(point);
    return first == wanted ? Holder.NOBODY : first;
  }

  private Outcome search(List<Box> region, Holder holder, Budget budget) {
    return CoverSearch.search(region, holder, index::region, budget);
  }

  /** Makes a holder that keeps a rival from deciding. */
  private interface KeptOff {
    Holder from(int rival);
  }

  /** Whether some rule below with another verdict, or the default rule, gets to the region. */
  private Outcome rivals(int handle, List<Box> region, KeptOff keptOff, Budget budget) {
    int[] below = index.overlapping(region, index.position(handle) + 1, index.size());
    for (int i = 0; i <= below.length; i++) {
      int rival = i == below.length ? RuleIndex.NONE : below[i];
      if (index.verdict(rival) != index.verdict(handle)) {
        List<Box> shared =
            rival == RuleIndex.NONE ? region : Box.shared(region, index.region(rival));
        Outcome outcome = search(shared, keptOff.from(rival), budget);
        if (!(outcome instanceof Outcome.Covered)) {
          return outcome;
        }
      }
    }
    return new Outcome.Covered(IntSet.EMPTY);
  }
}
