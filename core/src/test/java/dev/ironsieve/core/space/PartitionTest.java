package dev.ironsieve.core.space;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class PartitionTest {
  @Test
  void piecesShareAClassExactlyIfNoSetTellsThemApart() {
    for (int seed = 0; seed < Rounds.of(400); seed++) {
      Random random = new Random(seed);
      int pieces = 1 + random.nextInt(20);
      List<IntSet> sets = new ArrayList<>();
      for (int i = random.nextInt(6); i > 0; i--) {
        IntSet.Builder set = new IntSet.Builder();
        for (int piece = 0; piece < pieces; piece++) {
          if (random.nextBoolean()) {
            set.addInOrder(piece, piece);
          }
        }
        sets.add(set.build());
      }
      Partition partition = new Partition(pieces, sets);
      for (int a = 0; a < pieces; a++) {
        for (int b = 0; b < pieces; b++) {
          int one = a;
          int other = b;
          boolean alike = sets.stream().allMatch(set -> set.contains(one) == set.contains(other));
          assertThat(partition.classOf(a) == partition.classOf(b))
              .as("seed %d, pieces %d and %d", seed, a, b)
              .isEqualTo(alike);
        }
      }
    }
  }
}
