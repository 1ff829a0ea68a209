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
class SymbolLineTest {
  private static void check(
      SymbolLine line, int values, List<IntSet> sets, List<IntSet> labels, int seed) {
    for (int i = 0; i < sets.size(); i++) {
      IntSet set = sets.get(i);
      assertThat(line.values(labels.get(i)).toArray())
          .as("seed %d, %s", seed, set)
          .isEqualTo(IntStream.range(0, values).filter(set::contains).toArray());
      assertThat(line.size(labels.get(i))).isEqualTo((int) set.size());
    }
    Set<List<Boolean>> kinds = new HashSet<>();
    for (int value = 0; value < values; value++) {
      int v = value;
      kinds.add(sets.stream().map(set -> set.contains(v)).toList());
      int label = line.labelOf(value);
      int some = line.value(label);
      assertThat(line.labelOf(some)).isEqualTo(label);
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
        sets.add(NumberLineTest.randomSet(random, values - 1));
      }
      SymbolLine line = new SymbolLine(values, sets);
      List<IntSet> labels = new ArrayList<>(sets.stream().map(line::labels).toList());
      check(line, values, sets, labels, seed);
      for (int i = 0; i < 5; i++) {
        IntSet more = NumberLineTest.randomSet(random, values - 1);
        sets.add(more);
        labels.add(line.labels(more));
        check(line, values, sets, labels, seed);
      }
    }
  }

  @Test
  void allIsOneObject() {
    SymbolLine line = new SymbolLine(4, List.of(IntSet.range(1, 2)));
    assertThat(line.labels(IntSet.range(0, 3))).isSameAs(line.all());
    assertThat(line.labels(IntSet.EMPTY)).isEqualTo(IntSet.EMPTY);
    assertThat(line.classes()).isEqualTo(2);
  }

  @Test
  void thereIsAnEndToTheRoom() {
    SymbolLine line = new SymbolLine(100, List.of());
    int told = 0;
    while (told < 99 && line.labels(IntSet.range(told, 99)) != null) {
      told++;
    }
    assertThat(told).isBetween(25, 32);
  }
}
