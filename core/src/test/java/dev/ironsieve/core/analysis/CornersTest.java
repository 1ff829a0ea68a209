package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** The corner where the fewest rules meet, held to counting them for every class. */
class CornersTest {
  /** A rule for some ports; a few ask for none, and a few are off. */
  private static Rule rule(String id, Random random) {
    Rule any = Rule.matchingAll(id, id, Verdict.ALLOW).enabled(random.nextInt(10) > 0);
    if (random.nextInt(12) == 0) {
      return any;
    }
    List<ServiceItem> items = new ArrayList<>();
    for (int i = random.nextInt(3); i >= 0; i--) {
      int port = random.nextInt(3000);
      items.add(ServiceItem.parse("tcp/" + port + "-" + (port + 1 + random.nextInt(900))));
    }
    return any.matching(
        any.fromZones(),
        any.fromAddresses(),
        any.toZones(),
        any.toAddresses(),
        new Criterion<>(items, List.of()));
  }

  private static Rulebase base(List<Rule> rules) {
    return new Rulebase(
        "b", List.of(), List.of(), List.of(), List.of(new Section("s", "S", rules)));
  }

  private static List<Rule> rules(int count, Random random) {
    return IntStream.range(0, count).mapToObj(i -> rule("r" + i, random)).toList();
  }

  /** How many boxes of the rules above a place narrow the axis and hold the label. */
  private static long weight(Order order, int end, int axis, int label) {
    return IntStream.range(0, end)
        .map(order::slotAt)
        .filter(slot -> order.rule(slot).enabled())
        .mapToObj(order::region)
        .flatMap(List::stream)
        .map(box -> box.side(axis))
        .filter(side -> side != order.space().all(axis) && side.contains(label))
        .count();
  }

  private static void check(Order order, int end, Box box, int[] corner, String as) {
    Space space = order.space();
    for (int axis = 0; axis < corner.length; axis++) {
      int number = axis;
      IntSet side = box.side(axis);
      assertThat(side.contains(corner[axis])).as(as).isTrue();
      long least =
          IntStream.range(0, space.classes(axis))
              .map(rank -> space.label(number, rank))
              .filter(side::contains)
              .mapToLong(label -> weight(order, end, number, label))
              .min()
              .orElseThrow();
      assertThat(weight(order, end, axis, corner[axis])).as(as).isEqualTo(least);
    }
  }

  @Test
  void noClassOfABoxIsHeldByFewerRules() {
    for (int seed = 0; seed < Rounds.of(12); seed++) {
      Random random = new Random(seed);
      Order order = new Order(base(rules(seed % 2 == 0 ? 120 : 9, random)));
      int places = 1 + random.nextInt(3);
      Corners[] corners = Corners.upTo(order, places);
      for (int place = 0; place < places; place++) {
        int end = order.size() * (place + 1) / places;
        for (int i = 0; i < 8; i++) {
          List<Box> region = order.region(order.slotAt(random.nextInt(order.size())));
          for (Box box : region) {
            String as = "seed %d, up to %d: %s".formatted(seed, end, box);
            int[] corner = corners[place].corner(box);
            check(order, end, box, corner, as);
            assertThat(corners[place].of(box)).as("as picked").containsExactly(corner);
          }
        }
      }
    }
  }

  @Test
  void amongThousandsOfClassesToo() {
    Random random = new Random(1);
    Order order = new Order(base(rules(2000, random)));
    assertThat(order.space().classes(Space.SERVICE)).isGreaterThan(2500);
    Corners corners = Corners.upTo(order, 1)[0];
    for (int i = 0; i < 6; i++) {
      for (Box box : order.region(order.slotAt(random.nextInt(order.size())))) {
        check(order, order.size(), box, corners.corner(box), box.toString());
      }
    }
  }

  @Test
  void afterAnEditAPointOfTheBoxIsFoundStill() {
    for (int seed = 0; seed < Rounds.of(20); seed++) {
      Random random = new Random(seed);
      List<Rule> rules = new ArrayList<>(rules(30, random));
      Order order = new Order(base(rules));
      Corners corners = Corners.upTo(order, 1)[0];
      Set<String> moved = new HashSet<>();
      for (int i = 0; i < 5; i++) {
        rules.set(random.nextInt(rules.size()), rule("n" + i, random));
      }
      assertThat(order.update(rules, moved)).isNotNull();
      for (int slot = 0; slot < order.slots(); slot++) {
        for (Box box : order.region(slot)) {
          assertThat(box.contains(corners.corner(box))).as("seed %d: %s", seed, box).isTrue();
        }
      }
      Corners anew = corners.with(order, new int[] {Space.SERVICE});
      for (int position = 0; position < order.size(); position++) {
        for (Box box : order.region(order.slotAt(position))) {
          check(order, order.size(), box, anew.corner(box), "counted anew, seed " + seed);
        }
      }
    }
  }
}
