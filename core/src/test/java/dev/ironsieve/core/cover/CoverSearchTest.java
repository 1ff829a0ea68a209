package dev.ironsieve.core.cover;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.cover.CoverSearch.Candidate;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** The search against plain subtraction of boxes from boxes, and against trying every point. */
class CoverSearchTest {
  private static final int VALUES = 6;

  static Box randomBox(Random random, int axes, int dense) {
    IntSet[] sides = new IntSet[axes];
    for (int axis = 0; axis < axes; axis++) {
      IntSet side = IntSet.of(random.nextInt(VALUES));
      for (int value = 0; value < VALUES; value++) {
        if (random.nextInt(10) < dense) {
          side = side.union(IntSet.of(value));
        }
      }
      sides[axis] = side;
    }
    return new Box(sides);
  }

  /** What is left of the target, as boxes: the obvious way. */
  private static List<Box> subtracted(List<Box> target, List<Candidate> candidates) {
    List<Box> left = target;
    for (Candidate candidate : candidates) {
      List<Box> next = new ArrayList<>();
      for (Box box : left) {
        Box rest = box;
        for (int axis = 0; axis < box.axes() && rest != null; axis++) {
          IntSet outside = rest.side(axis).minus(candidate.box().side(axis));
          IntSet inside = rest.side(axis).intersect(candidate.box().side(axis));
          if (!outside.isEmpty()) {
            next.add(rest.with(axis, outside));
          }
          rest = inside.isEmpty() ? null : rest.with(axis, inside);
        }
      }
      left = next;
    }
    return left;
  }

  private static List<Candidate> only(List<Candidate> candidates, IntSet rules) {
    return candidates.stream().filter(candidate -> rules.contains(candidate.rule())).toList();
  }

  @Test
  void agreesWithSubtractingOneBoxAfterTheOther() {
    int covered = 0;
    int open = 0;
    for (int seed = 0; seed < Rounds.of(4000); seed++) {
      Random random = new Random(seed);
      int axes = 1 + random.nextInt(5);
      int dense = 5 + random.nextInt(5);
      List<Box> target = List.of(randomBox(random, axes, 8), randomBox(random, axes, 3));
      List<Candidate> candidates = new ArrayList<>();
      for (int i = random.nextInt(40); i > 0; i--) {
        candidates.add(new Candidate(candidates.size() / 2, randomBox(random, axes, dense)));
      }
      boolean right = subtracted(target, candidates).isEmpty();
      List<Outcome> outcomes =
          List.of(
              CoverSearch.search(target, candidates, new Budget(1_000_000)),
              CoverSearch.search(
                  target,
                  point -> holder(candidates, point),
                  rule -> only(candidates, IntSet.of(rule)).stream().map(Candidate::box).toList(),
                  new Budget(1_000_000)));
      for (Outcome outcome : outcomes) {
        switch (outcome) {
          case Outcome.Covered proof -> {
            assertThat(right).as("seed " + seed).isTrue();
            assertThat(subtracted(target, only(candidates, proof.rules()))).isEmpty();
            covered++;
          }
          case Outcome.Uncovered found -> {
            assertThat(right).as("seed " + seed).isFalse();
            assertThat(target).anyMatch(box -> box.contains(found.point()));
            assertThat(candidates).noneMatch(c -> c.box().contains(found.point()));
            open++;
          }
          case Outcome.Exhausted exhausted -> throw new AssertionError("seed " + seed);
        }
      }
    }
    assertThat(covered).isGreaterThan(Rounds.of(1000));
    assertThat(open).isGreaterThan(Rounds.of(1000));
  }

  private static int holder(List<Candidate> candidates, int[] point) {
    return candidates.stream()
        .filter(candidate -> candidate.box().contains(point))
        .findFirst()
        .map(Candidate::rule)
        .orElse(CoverSearch.Holder.NOBODY);
  }

  /** Boxes that stick out everywhere and nearly cover: past the budget nothing is claimed. */
  @Test
  void stopsAtItsBudgetOnTheWorstThatIsKnown() {
    Random random = new Random(3);
    List<Candidate> candidates = new ArrayList<>();
    for (int i = 0; i < Rounds.of(400); i++) {
      IntSet[] sides = new IntSet[6];
      for (int axis = 0; axis < sides.length; axis++) {
        IntSet side = IntSet.of(random.nextInt(40));
        for (int value = 0; value < 40; value++) {
          side = random.nextInt(4) > 0 ? side.union(IntSet.of(value)) : side;
        }
        sides[axis] = side;
      }
      candidates.add(new Candidate(i, new Box(sides)));
    }
    IntSet all = IntSet.range(0, 39);
    Box target = new Box(new IntSet[] {all, all, all, all, all, all});
    for (int steps : new int[] {0, 10, 1000, 30_000}) {
      switch (CoverSearch.search(List.of(target), candidates, new Budget(steps))) {
        case Outcome.Exhausted exhausted -> {}
        case Outcome.Uncovered found ->
            assertThat(candidates).noneMatch(c -> c.box().contains(found.point()));
        case Outcome.Covered proof ->
            assertThat(subtracted(List.of(target), only(candidates, proof.rules()))).isEmpty();
      }
    }
    assertThat(CoverSearch.search(List.of(target), candidates, new Budget(0)))
        .isInstanceOf(Outcome.Exhausted.class);
  }
}
