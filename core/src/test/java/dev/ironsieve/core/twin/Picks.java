package dev.ironsieve.core.twin;

import dev.ironsieve.core.model.Criterion;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/** Random criteria over a few items. */
record Picks(Random random) {
  /** One to three items and an exception; with {@code oneIn} = 2, every other has no items. */
  Criterion<String> criterion(List<String> from, int oneIn) {
    List<String> items = new ArrayList<>();
    List<String> except = new ArrayList<>();
    if (random.nextInt(oneIn) == 0) {
      for (int i = random.nextInt(3); i >= 0; i--) {
        items.add(one(from));
      }
    }
    if (random.nextInt(6) == 0) {
      except.add(one(from));
    }
    return new Criterion<>(items, except);
  }

  <T> T one(List<T> from) {
    return from.get(random.nextInt(from.size()));
  }
}
