package dev.ironsieve.core.sets;

import java.util.Arrays;

/** Operations on sorted arrays of integers. */
public final class Ints {
  private Ints() {}

  /**
   * The first {@code count} of some numbers, ascending and each once; O(count log count).
   *
   * @param numbers the caller gives them away
   */
  public static int[] distinct(int[] numbers, int count) {
    Arrays.sort(numbers, 0, count);
    int distinct = 0;
    for (int i = 0; i < count; i++) {
      if (distinct == 0 || numbers[i] != numbers[distinct - 1]) {
        numbers[distinct++] = numbers[i];
      }
    }
    return Arrays.copyOf(numbers, distinct);
  }
}
