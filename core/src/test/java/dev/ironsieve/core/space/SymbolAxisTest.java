package dev.ironsieve.core.space;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** A dimension of names, held to asking each value for itself. */
class SymbolAxisTest {
  private static void check(
      SymbolAxis line, int values, List<IntSet> sets, List<IntSet> codes, int seed) {
    for (int i = 0; i < sets.size(); i++) {
      IntSet set = sets.get(i);
      assertThat(line.values(codes.get(i)).toArray())
          .as("seed %d, %s", seed, set)
          .isEqualTo(IntStream.range(0, values).filter(set::contains).toArray());
      assertThat(line.size(codes.get(i))).isEqualTo((int) set.size());
    }
    Set<List<Boolean>> kinds = new HashSet<>();
    for (int value = 0; value < values; value++) {
      int v = value;
      kinds.add(sets.stream().map(set -> set.contains(v)).toList());
      int code = line.codeOf(value);
      int some = line.value(code);
      assertThat(line.codeOf(some)).isEqualTo(code);
      assertThat(some).as("the lowest of its class").isLessThanOrEqualTo(value);
    }
    assertThat(line.classes()).as("seed %d", seed).isEqualTo(kinds.size());
  }

  @Test
  void aClassHoldsTheValuesThatAreInTheSameSets() {
    for (int seed = 0; seed < Rounds.of(300); seed++) {
      Random random = new Random(seed);
      int values = 1 + random.nextInt(25);
      List<IntSet> sets = new ArrayList<>();
      for (int i = random.nextInt(5); i > 0; i--) {
        sets.add(NumberAxisTest.randomSet(random, values - 1));
      }
      SymbolAxis line = new SymbolAxis(values, sets);
      List<IntSet> codes = new ArrayList<>(sets.stream().map(line::codes).toList());
      check(line, values, sets, codes, seed);
      for (int i = 0; i < 5; i++) {
        IntSet more = NumberAxisTest.randomSet(random, values - 1);
        sets.add(more);
        codes.add(line.codes(more));
        check(line, values, sets, codes, seed);
      }
    }
  }

  @Test
  void allIsOneObject() {
    SymbolAxis line = new SymbolAxis(4, List.of(IntSet.range(1, 2)));
    assertThat(line.codes(IntSet.range(0, 3))).isSameAs(line.all());
    assertThat(line.codes(IntSet.EMPTY)).isEqualTo(IntSet.EMPTY);
    assertThat(line.classes()).isEqualTo(2);
  }

  @Test
  void thereIsAnEndToTheRoom() {
    SymbolAxis line = new SymbolAxis(100, List.of());
    int told = 0;
    while (told < 99 && line.codesIfRoom(IntSet.range(told, 99)).isPresent()) {
      told++;
    }
    assertThat(told).isBetween(25, 32);
  }
}
