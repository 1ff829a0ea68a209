package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch.Picker;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** The minimal cause of a cover, against trying every set of rules at every point. */
class MinimalCauseTest {
  private static final int SIDE = 5; // codes on each of two axes
  private static final List<Box> TARGET = List.of(box(0, SIDE - 1, 0, SIDE - 1));

  private static Box box(int fromX, int toX, int fromY, int toY) {
    return new Box(new IntSet[] {IntSet.range(fromX, toX), IntSet.range(fromY, toY)});
  }

  /** Rules of one or two boxes, some of them wide. */
  private static List<List<Box>> randomRules(Random random) {
    List<List<Box>> rules = new ArrayList<>();
    for (int rule = 3 + random.nextInt(6); rule > 0; rule--) {
      List<Box> boxes = new ArrayList<>();
      for (int i = random.nextInt(3); i >= 0; i -= 2) {
        int x = random.nextInt(SIDE);
        int y = random.nextInt(SIDE);
        boolean wide = random.nextBoolean();
        boxes.add(
            box(
                wide ? 0 : x,
                wide ? SIDE - 1 : x + random.nextInt(SIDE - x),
                y,
                y + random.nextInt(SIDE - y)));
      }
      rules.add(boxes);
    }
    return rules;
  }

  private static int[] holding(List<List<Box>> rules, int[] point) {
    return IntStream.range(0, rules.size())
        .filter(rule -> rules.get(rule).stream().anyMatch(box -> box.contains(point)))
        .toArray();
  }

  private static boolean covers(List<List<Box>> rules, IntSet some) {
    for (int x = 0; x < SIDE; x++) {
      for (int y = 0; y < SIDE; y++) {
        if (Arrays.stream(holding(rules, new int[] {x, y})).noneMatch(some::contains)) {
          return false;
        }
      }
    }
    return true;
  }

  /** The smallest cover, the first in rule order, by trying all sets of rules. */
  private static int[] firstSmallest(List<List<Box>> rules) {
    int[] best = null;
    for (long subset = 0; subset < 1L << rules.size(); subset++) {
      int[] members = BitSet.valueOf(new long[] {subset}).stream().toArray();
      if (best == null
          || members.length < best.length
          || members.length == best.length && Arrays.compare(members, best) < 0) {
        best = covers(rules, IntSet.of(members)) ? members : best;
      }
    }
    return best;
  }

  private static IntSet all(List<List<Box>> rules) {
    return IntSet.range(0, rules.size() - 1);
  }

  private static MinimalCause.Candidates candidates(List<List<Box>> rules) {
    return new MinimalCause.Candidates() {
      @Override
      public int[] holding(int[] point) {
        return MinimalCauseTest.holding(rules, point);
      }

      @Override
      public int position(int rule) {
        return rule;
      }
    };
  }

  private static MinimalCause.Result minimalCause(List<List<Box>> rules, Budget budget) {
    return MinimalCause.of(
        TARGET, candidates(rules), rules::get, Picker.FAR_APART, all(rules), budget);
  }

  @Test
  void findsTheFewestAndSaysSo() {
    int covered = 0;
    int several = 0;
    for (int seed = 0; seed < Rounds.of(4000); seed++) {
      List<List<Box>> rules = randomRules(new Random(seed));
      if (!covers(rules, all(rules))) {
        continue;
      }
      covered++;
      MinimalCause.Result verdict = minimalCause(rules, new Budget(1_000_000));
      String as = "seed " + seed + ": " + rules;
      assertThat(covers(rules, verdict.rules())).as(as).isTrue();
      assertThat(verdict.rules().toArray()).as(as).isEqualTo(firstSmallest(rules));
      assertThat(verdict.smallest()).as(as).isTrue();
      several += verdict.rules().size() > 2 ? 1 : 0;
    }
    assertThat(covered).isGreaterThanOrEqualTo(Rounds.least(900));
    assertThat(several).isGreaterThanOrEqualTo(Rounds.least(150));
  }

  @Test
  void whateverTheBudgetNothingIsSaidThatIsNotSo() {
    int notReduced = 0;
    int notProven = 0;
    for (int seed = 0; seed < Rounds.of(4000); seed++) {
      Random random = new Random(seed);
      List<List<Box>> rules = randomRules(random);
      if (!covers(rules, all(rules))) {
        continue;
      }
      MinimalCause.Result verdict = minimalCause(rules, new Budget(random.nextInt(80)));
      String as = "seed " + seed + ": " + rules;
      assertThat(covers(rules, verdict.rules())).as(as).isTrue();
      if (verdict.minimality() == Minimality.UNPROVEN) {
        notReduced++;
        continue;
      }
      verdict
          .rules()
          .forEach(
              one ->
                  assertThat(covers(rules, verdict.rules().minus(IntSet.of(one))))
                      .as("%s without %d", as, one)
                      .isFalse());
      if (verdict.smallest()) {
        assertThat(verdict.rules().size()).as(as).isEqualTo(firstSmallest(rules).length);
      } else {
        notProven++;
      }
    }
    assertThat(notReduced).isGreaterThanOrEqualTo(Rounds.least(100));
    assertThat(notProven).isGreaterThanOrEqualTo(Rounds.least(50));
  }

  @Test
  void leavesOutTheLatestFirst() {
    List<List<Box>> rules =
        List.of(List.of(box(0, 2, 0, 4)), List.of(box(3, 4, 0, 4)), List.of(box(3, 4, 0, 4)));
    assertThat(minimalCause(rules, new Budget(1000)).rules().toArray()).containsExactly(0, 1);
  }

  @Test
  void oneRuleThatHoldsAllIsBlamedWhereTwoOthersWereFoundFirst() {
    List<List<Box>> rules =
        List.of(
            List.of(box(0, 2, 0, 4)),
            List.of(box(3, 4, 0, 4)),
            List.of(box(0, 1, 0, 4), box(2, 4, 0, 4)));
    MinimalCause.Result verdict = minimalCause(rules, new Budget(1000));
    assertThat(verdict.rules().toArray()).containsExactly(2);
    assertThat(verdict.smallest()).isTrue();
  }
}
