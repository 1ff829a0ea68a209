package dev.ironsieve.core.space;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** A dimension of integers, held to asking each value for itself. */
class NumberAxisTest {
  private static final int HIGHEST = 40;

  static IntSet randomSet(Random random, int highest) {
    IntSet.Builder out = new IntSet.Builder();
    for (int value = random.nextInt(4); value <= highest; value += 1 + random.nextInt(6)) {
      int last = Math.min(highest, value + random.nextInt(5));
      out.addInOrder(value, last);
      value = last;
    }
    return out.build();
  }

  /** Each value that can occur, and which of the sets it is in. */
  private static Map<List<Boolean>, Integer> lowestByKind(IntSet feasible, List<IntSet> sets) {
    Map<List<Boolean>, Integer> out = new HashMap<>();
    for (int value = HIGHEST; value >= 0; value--) {
      int v = value;
      if (feasible.contains(value)) {
        out.put(sets.stream().map(set -> set.contains(v)).toList(), value);
      }
    }
    return out;
  }

  private static void check(
      NumberAxis line, IntSet feasible, List<IntSet> sets, List<IntSet> codes, int seed) {
    for (int value = 0; value <= HIGHEST; value++) {
      int code = line.codeOf(value);
      assertThat(code >= 0)
          .as("seed %d, value %d", seed, value)
          .isEqualTo(feasible.contains(value));
      if (code < 0) {
        continue;
      }
      for (int i = 0; i < sets.size(); i++) {
        assertThat(codes.get(i).contains(code))
            .as("seed %d, value %d in %s", seed, value, sets.get(i))
            .isEqualTo(sets.get(i).contains(value));
      }
      assertThat(line.codeOf(line.value(code))).isEqualTo(code);
      assertThat(line.value(code)).isLessThanOrEqualTo(value);
      assertThat(line.value(code, -1, value)).isEqualTo(value);
      assertThat(line.code(line.rankOf(code))).isEqualTo(code);
    }
    for (int i = 0; i < sets.size(); i++) {
      assertThat(line.values(codes.get(i)))
          .as("seed %d, %s", seed, sets.get(i))
          .isEqualTo(sets.get(i).intersect(feasible));
    }
  }

  /** Ranks, counts and picks, against listing the classes. */
  private static void checkClasses(NumberAxis line, List<IntSet> codes) {
    int[] lowest = IntStream.range(0, line.classes()).map(line::code).toArray();
    assertThat(lowest).isSorted().doesNotHaveDuplicates();
    assertThat(line.all()).isEqualTo(IntSet.range(0, line.code(line.classes()) - 1));
    for (int rank = 0; rank < lowest.length; rank++) {
      assertThat(line.rank(lowest[rank])).isEqualTo(rank);
      assertThat(line.rank(lowest[rank] + 1)).isEqualTo(rank + 1);
      assertThat(line.rankOf(lowest[rank])).isEqualTo(rank);
      assertThat(line.rankOf(line.code(rank + 1) - 1)).isEqualTo(rank);
    }
    for (IntSet set : codes) {
      int[] inside = IntStream.of(lowest).filter(set::contains).toArray();
      assertThat(line.count(set)).isEqualTo(inside.length);
      for (int i = 0; i < inside.length; i++) {
        assertThat(line.pick(set, i)).isEqualTo(inside[i]);
      }
    }
  }

  @Test
  void classesTellApartWhatTheSetsTellApart() {
    for (int seed = 0; seed < Rounds.of(300); seed++) {
      Random random = new Random(seed);
      IntSet feasible = randomSet(random, HIGHEST);
      if (feasible.isEmpty()) {
        continue;
      }
      List<IntSet> sets = new ArrayList<>();
      for (int i = random.nextInt(6); i > 0; i--) {
        sets.add(randomSet(random, HIGHEST));
      }
      NumberAxis line = new NumberAxis(feasible, sets);
      List<IntSet> codes = new ArrayList<>(sets.stream().map(line::codes).toList());
      check(line, feasible, sets, codes, seed);
      checkClasses(line, codes);
      // Runs of values alike make a class; there is no class without a value.
      assertThat(line.classes())
          .as("seed %d", seed)
          .isGreaterThanOrEqualTo(lowestByKind(feasible, sets).size());
      // Sets that come later cut classes; what was made before stays right as it is.
      for (int i = 0; i < 5; i++) {
        IntSet more = randomSet(random, HIGHEST);
        IntSet known = line.codes(more);
        assertThat(line.codes(more)).isSameAs(known);
        sets.add(more);
        codes.add(known);
        check(line, feasible, sets, codes, seed);
        checkClasses(line, codes);
      }
    }
  }

  @Test
  void setsThatMeanTheSameHaveTheSameCodes() {
    IntSet feasible = IntSet.range(10, 30);
    NumberAxis line = new NumberAxis(feasible, List.of(IntSet.range(12, 14)));
    assertThat(line.classes()).isEqualTo(3);
    assertThat(line.codes(IntSet.range(0, 40))).isSameAs(line.all());
    assertThat(line.codes(feasible)).isSameAs(line.all());
    assertThat(line.codes(IntSet.range(0, 5))).isEqualTo(IntSet.EMPTY);
    assertThat(line.codes(IntSet.range(0, 14))).isSameAs(line.codes(IntSet.range(5, 14)));
    assertThat(line.classes()).isEqualTo(3); // 0..14 ends where 12..14 does
  }

  @Test
  void thereIsAnEndToTheRoom() {
    NumberAxis line = new NumberAxis(IntSet.range(0, 1000), List.of());
    int room = 0;
    while (room < 100 && line.codesIfRoom(IntSet.range(0, 500 - room)).isPresent()) {
      room++;
    }
    // Each cut takes the upper half of what is left below: 30 bits, less one class for itself.
    assertThat(room).isBetween(25, 31);
    assertThat(line.codesIfRoom(IntSet.range(0, 500))).isPresent();
    assertThat(line.classes()).isEqualTo(room + 1);
  }
}
