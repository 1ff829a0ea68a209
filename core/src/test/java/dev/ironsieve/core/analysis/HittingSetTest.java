package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class HittingSetTest {
  private static BitSet set(int... members) {
    BitSet out = new BitSet();
    for (int member : members) {
      out.set(member);
    }
    return out;
  }

  private static Budget plenty() {
    return new Budget(1_000_000);
  }

  @Test
  void oneMemberIsEnoughWhereAllSetsShareIt() {
    List<BitSet> sets = List.of(set(1, 5), set(5, 7), set(2, 5));
    assertThat(HittingSet.firstSmallest(sets, 1, 2, plenty())).isEqualTo(set(5));
  }

  @Test
  void nothingIsGivenThatIsNotSmallerThanAsked() {
    List<BitSet> sets = List.of(set(1), set(2), set(3));
    assertThat(HittingSet.firstSmallest(sets, 1, 2, plenty())).isNull();
    assertThat(HittingSet.firstSmallest(sets, 1, 3, plenty())).isEqualTo(set(1, 2, 3));
  }

  @Test
  void aBudgetThatRunsOutGivesNothingAndShows() {
    Budget budget = new Budget(2);
    List<BitSet> sets = List.of(set(1, 2), set(2, 3), set(1, 3));
    assertThat(HittingSet.firstSmallest(sets, 1, 3, budget)).isNull();
    assertThat(budget.take(0)).isFalse();
  }

  @Test
  void setsOfManyNumbersTakeMoreSteps() {
    // 5001 bits are 79 words, which take 5 steps; looked at with nothing chosen, and with 5000.
    assertThat(HittingSet.firstSmallest(List.of(set(5000)), 1, 1, new Budget(9))).isNull();
    assertThat(HittingSet.firstSmallest(List.of(set(5000)), 1, 1, new Budget(10)))
        .isEqualTo(set(5000));
  }

  @Test
  void setsApartNeedAMemberEach() {
    // One step for each of two sets: with nothing chosen, which shows that one is not enough; and
    // with nothing, with 1, and with 1 and 2.
    List<BitSet> apart = List.of(set(1), set(2));
    assertThat(HittingSet.firstSmallest(apart, 1, 2, new Budget(7))).isNull();
    assertThat(HittingSet.firstSmallest(apart, 1, 2, new Budget(8))).isEqualTo(set(1, 2));
    assertThat(HittingSet.firstSmallest(apart, 2, 2, new Budget(6))).isEqualTo(set(1, 2));
    List<BitSet> many = new ArrayList<>();
    for (int i = 0; i < 20; i++) {
      many.add(set(3 * i, 3 * i + 1, 3 * i + 2));
    }
    Budget budget = new Budget(400);
    assertThat(HittingSet.firstSmallest(many, 1, 19, budget)).isNull();
    assertThat(budget.take(0)).as("proven").isTrue();
  }

  @Test
  void agreesWithTryingEverySubset() {
    for (int seed = 0; seed < Rounds.of(300); seed++) {
      Random random = new Random(seed);
      List<BitSet> sets = new ArrayList<>();
      for (int i = 1 + random.nextInt(6); i > 0; i--) {
        BitSet one = set(random.nextInt(8));
        for (int extra = random.nextInt(3); extra > 0; extra--) {
          one.set(random.nextInt(8));
        }
        sets.add(one);
      }
      BitSet first = null; // the fewest members, then the lowest
      for (long subset = 0; subset < 256; subset++) {
        BitSet some = BitSet.valueOf(new long[] {subset});
        if (sets.stream().allMatch(s -> s.intersects(some))) {
          first = first == null || isBefore(some, first) ? some : first;
        }
      }
      BitSet found = HittingSet.firstSmallest(sets, 1, 8, plenty());
      assertThat(found).as("seed %d: %s", seed, sets).isEqualTo(first);
    }
  }

  private static boolean isBefore(BitSet one, BitSet other) {
    if (one.cardinality() != other.cardinality()) {
      return one.cardinality() < other.cardinality();
    }
    return Arrays.compare(one.stream().toArray(), other.stream().toArray()) < 0;
  }
}
