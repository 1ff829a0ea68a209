package dev.ironsieve.core.reach;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.List;

/**
 * Finds the rules that decide the connections of a pattern, and for which values on one axis: the
 * opening ends for "who can reach this?", the far ends for "what can this person reach?".
 *
 * <p>The values are found point by point: a point that a rule decides stands for every value on the
 * axis with which the same point is still this rule's; they are taken out, and the search goes on
 * until nothing of the rule is left. Exact, within a budget.
 */
public final class ReachQuestion {
  /** Steps for the whole question; a step is one comparison of a box with another. */
  public static final long STEPS = 2_000_000;

  private final RuleIndex index;
  private final int axis;
  private final Budget budget;

  private ReachQuestion(RuleIndex index, int axis, long steps) {
    this.index = index;
    this.axis = axis;
    this.budget = new Budget(steps);
  }

  /**
   * @param pattern a rule whose criteria are the question; nothing else of it counts
   * @param axis an axis of the order's space, such as {@link Space#FROM}
   * @throws IllegalStateException if the order has no room left to tell the pattern apart, and has
   *     to be made anew first
   */
  public static ReachAnswer ask(RuleIndex index, Rule pattern, int axis, long steps) {
    return new ReachQuestion(index, axis, steps).answer(ReachTable.regionOf(index, pattern));
  }

  private ReachAnswer answer(List<Box> region) {
    List<ReachAnswer.Decider> deciders = new ArrayList<>();
    boolean complete = true;
    int[] rules = index.overlapping(region, 0, index.size());
    for (int i = 0; i <= rules.length; i++) {
      int handle = i == rules.length ? RuleIndex.NONE : rules[i];
      List<Box> shared =
          handle == RuleIndex.NONE ? region : Box.shared(region, index.region(handle));
      IntSet codes = IntSet.EMPTY;
      int[] witness = null;
      for (Box box : shared) {
        Values values = values(index, handle, box, axis, IntSet.EMPTY, budget);
        witness = witness == null ? values.witness : witness;
        codes = codes.union(values.codes);
        complete &= values.complete;
      }
      if (witness != null) {
        deciders.add(
            new ReachAnswer.Decider(
                handle == RuleIndex.NONE ? null : index.rule(handle),
                codes,
                index.space().words(axis, codes),
                index.space().connection(witness)));
      }
    }
    return new ReachAnswer(deciders, complete);
  }

  /**
   * The codes of an axis for which a rule decides some point of a box.
   *
   * @param witness a point that it decides; null if there is none
   * @param complete whether these are all; if not, the budget ran out
   */
  record Values(IntSet codes, int[] witness, boolean complete) {}

  /**
   * The values on an axis for which a rule decides some point of a box.
   *
   * @param handle of the rule, or that of the default rule; the box is in its region
   * @param known codes that are not asked about
   */
  static Values values(
      RuleIndex index, int handle, Box box, int axis, IntSet known, Budget budget) {
    IntSet codes = IntSet.EMPTY;
    int[] witness = null;
    IntSet left = box.side(axis).minus(known);
    while (!left.isEmpty()) {
      Outcome outcome =
          CoverSearch.search(
              List.of(box.with(axis, left)),
              point -> ReachTable.otherThan(index, handle, point),
              index::region,
              budget);
      if (!(outcome instanceof Outcome.Uncovered found)) {
        return new Values(codes, witness, outcome instanceof Outcome.Covered);
      }
      witness = witness == null ? found.point() : witness;
      IntSet alike = alike(index, handle, found.point(), axis, left);
      codes = codes.union(alike);
      left = left.minus(alike);
    }
    return new Values(codes, witness, true);
  }

  /** The codes among {@code left} with which the point is still decided by the rule. */
  private static IntSet alike(RuleIndex index, int handle, int[] point, int axis, IntSet left) {
    IntSet[] sides = new IntSet[point.length];
    for (int i = 0; i < point.length; i++) {
      sides[i] = i == axis ? left : index.space().classOf(i, point[i]);
    }
    Box line = new Box(sides);
    int above = handle == RuleIndex.NONE ? index.size() : index.position(handle);
    IntSet alike = left;
    for (int other : index.overlapping(List.of(line), 0, above)) {
      for (Box box : index.region(other)) {
        if (box.intersects(line)) {
          alike = alike.minus(box.side(axis));
        }
      }
    }
    return alike;
  }
}
