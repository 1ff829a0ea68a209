package dev.ironsieve.core.order;

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
class AroundTest {
  private static final int RULES = 400; // whose boxes are several words

  private static boolean meets(Order order, int slot, List<Box> wanted) {
    return order.rule(slot).enabled()
        && order.region(slot).stream().anyMatch(box -> wanted.stream().anyMatch(box::intersects));
  }

  private static int[] expected(Order order, List<Box> wanted, int from, int to, int remainder) {
    return IntStream.range(from, to)
        .map(order::slotAt)
        .filter(slot -> slot % 3 == remainder && meets(order, slot, wanted))
        .toArray();
  }

  private static void check(Order order, Random random, String where) {
    for (int i = 0; i < 40; i++) {
      int slot = order.slotAt(random.nextInt(order.size()));
      List<Box> wanted = order.region(slot);
      int from = i % 4 == 0 ? 0 : random.nextInt(order.size());
      int to = i % 4 == 1 ? order.size() : from + random.nextInt(order.size() + 1 - from);
      int remainder = random.nextInt(3);
      int[] meeting = expected(order, wanted, from, to, remainder);
      Around around = order.around(wanted);
      for (int again = 0; again < 2; again++) { // the second time from what is known
        assertThat(around.all(from, to, other -> other % 3 == remainder))
            .as("%s: from %d to %d around %d", where, from, to, slot)
            .isEqualTo(meeting);
        List<Integer> asked = new ArrayList<>();
        assertThat(
                around.some(
                    from,
                    to,
                    other -> other % 3 == remainder,
                    other -> {
                      asked.add(other);
                      return false;
                    }))
            .isEqualTo(Order.NONE);
        if (wanted.stream().allMatch(box -> order.cells(box) != null)) {
          assertThat(asked).as("each is asked about once").doesNotHaveDuplicates();
        }
        assertThat(new TreeSet<>(asked).stream().toList())
            .isEqualTo(IntStream.of(meeting).sorted().boxed().toList());
        if (meeting.length > 0) {
          int wish = meeting[random.nextInt(meeting.length)];
          assertThat(around.some(from, to, other -> other % 3 == remainder, o -> o == wish))
              .isEqualTo(wish);
        }
      }
      assertThat(around.some(from, from, other -> true, other -> true)).isEqualTo(Order.NONE);
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
      Order order = new Order(world.rulebase(1).withSections(List.of(section(rules))));
      Random random = new Random(seed);
      check(order, random, "seed " + seed + ", as built");
      Set<String> moved = new HashSet<>();
      for (int i = 0; i < 20; i++) {
        Rule rule = rules.remove(random.nextInt(rules.size()));
        moved.add(rule.id());
        rules.add(random.nextInt(rules.size() + 1), rule);
      }
      assertThat(order.update(rules, moved)).isNotNull();
      check(order, random, "seed " + seed + ", when cells are not made for it"); // from all boxes
    }
  }

  private static Section section(List<Rule> rules) {
    return new Section("s", "S", rules);
  }
}
