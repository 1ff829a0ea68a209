package dev.ironsieve.core.ruleindex;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** The longest rising part, held to trying every part. */
class LongestIncreasingSubsequenceTest {
  private static boolean rises(int[] sequence, BitSet part) {
    int[] numbers = part.stream().map(i -> sequence[i]).toArray();
    return IntStream.range(1, numbers.length).allMatch(i -> numbers[i - 1] < numbers[i]);
  }

  @Test
  void noOtherPartThatRisesIsLonger() {
    for (int seed = 0; seed < Rounds.of(200); seed++) {
      Random random = new Random(seed);
      List<Integer> numbers = new ArrayList<>();
      for (int i = random.nextInt(9); i > 0; i--) {
        numbers.add(7 * i);
      }
      Collections.shuffle(numbers, random);
      int[] sequence = numbers.stream().mapToInt(Integer::intValue).toArray();
      int longest =
          IntStream.range(0, 1 << sequence.length)
              .mapToObj(bits -> BitSet.valueOf(new long[] {bits}))
              .filter(part -> rises(sequence, part))
              .mapToInt(BitSet::cardinality)
              .max()
              .orElseThrow();
      BitSet found = LongestIncreasingSubsequence.longest(sequence);
      assertThat(rises(sequence, found)).as("%s of %s", found, numbers).isTrue();
      assertThat(found.cardinality()).as("%s of %s", found, numbers).isEqualTo(longest);
    }
  }
}
