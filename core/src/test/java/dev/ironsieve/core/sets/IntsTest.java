package dev.ironsieve.core.sets;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;

class IntsTest {
  @Test
  void distinctAgreesWithAStream() {
    Random random = new Random(1);
    for (int round = 0; round < 500; round++) {
      int[] numbers = random.ints(random.nextInt(40), -9, 10).toArray();
      int count = random.nextInt(numbers.length + 1);
      int[] expected = Arrays.stream(numbers, 0, count).sorted().distinct().toArray();
      assertThat(Ints.distinct(numbers, count)).isEqualTo(expected);
    }
  }
}
