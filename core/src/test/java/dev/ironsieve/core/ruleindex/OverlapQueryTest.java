package dev.ironsieve.core.ruleindex;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** The rules around a box, from cells that are there and from all boxes, against comparing all. */
class OverlapQueryTest {
  private static final int RULES = 400; // whose boxes are several words

  private static boolean meets(RuleIndex index, int handle, List<Box> wanted) {
    return index.rule(handle).enabled()
        && index.region(handle).stream().anyMatch(box -> wanted.stream().anyMatch(box::intersects));
  }

  private static int[] expected(
      RuleIndex index, List<Box> wanted, int from, int to, int remainder) {
    return IntStream.range(from, to)
        .map(index::handleAt)
        .filter(handle -> handle % 3 == remainder && meets(index, handle, wanted))
        .toArray();
  }

  private static void check(RuleIndex index, Random random, String where) {
    for (int i = 0; i < 40; i++) {
      int handle = index.handleAt(random.nextInt(index.size()));
      List<Box> wanted = index.region(handle);
      int from = i % 4 == 0 ? 0 : random.nextInt(index.size());
      int to = i % 4 == 1 ? index.size() : from + random.nextInt(index.size() + 1 - from);
      int remainder = random.nextInt(3);
      int[] overlapping = expected(index, wanted, from, to, remainder);
      OverlapQuery overlaps = index.overlaps(wanted);
      for (int again = 0; again < 2; again++) { // the second time from what is known
        assertThat(overlaps.all(from, to, other -> other % 3 == remainder))
            .as("%s: from %d to %d around %d", where, from, to, handle)
            .isEqualTo(overlapping);
        List<Integer> asked = new ArrayList<>();
        assertThat(
                overlaps.some(
                    from,
                    to,
                    other -> other % 3 == remainder,
                    other -> {
                      asked.add(other);
                      return false;
                    }))
            .isEqualTo(RuleIndex.NONE);
        if (wanted.stream().allMatch(box -> index.cells(box) != null)) {
          assertThat(asked).as("each is asked about once").doesNotHaveDuplicates();
        }
        assertThat(new TreeSet<>(asked).stream().toList())
            .isEqualTo(IntStream.of(overlapping).sorted().boxed().toList());
        if (overlapping.length > 0) {
          int wish = overlapping[random.nextInt(overlapping.length)];
          assertThat(overlaps.some(from, to, other -> other % 3 == remainder, o -> o == wish))
              .isEqualTo(wish);
        }
      }
      assertThat(overlaps.some(from, from, other -> true, other -> true)).isEqualTo(RuleIndex.NONE);
    }
  }

  @Test
  void rulesAroundAreThoseThatMeet() {
    for (int seed = 0; seed < 2 + Rounds.of(10); seed++) {
      SmallWorld world = new SmallWorld(seed, seed % 2 == 1);
      List<Rule> rules = new ArrayList<>();
      for (int i = 0; i < RULES; i++) {
        rules.add(world.rule("r" + i));
      }
      RuleIndex index = new RuleIndex(world.rulebase(1).withSections(List.of(section(rules))));
      Random random = new Random(seed);
      check(index, random, "seed " + seed + ", as built");
      Set<String> moved = new HashSet<>();
      for (int i = 0; i < 20; i++) {
        Rule rule = rules.remove(random.nextInt(rules.size()));
        moved.add(rule.id());
        rules.add(random.nextInt(rules.size() + 1), rule);
      }
      assertThat(index.update(rules, moved)).isNotNull();
      check(index, random, "seed " + seed + ", when cells are not made for it"); // from all boxes
    }
  }

  private static Section section(List<Rule> rules) {
    return new Section("s", "S", rules);
  }
}
