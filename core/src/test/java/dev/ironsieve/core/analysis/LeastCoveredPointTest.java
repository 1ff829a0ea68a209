package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
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
class LeastCoveredPointTest {
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

  /** How many boxes of the rules above a place narrow the axis and hold the code. */
  private static long weight(RuleIndex index, int end, int axis, int code) {
    return IntStream.range(0, end)
        .map(index::handleAt)
        .filter(handle -> index.rule(handle).enabled())
        .mapToObj(index::region)
        .flatMap(List::stream)
        .map(box -> box.side(axis))
        .filter(side -> side != index.space().all(axis) && side.contains(code))
        .count();
  }

  private static void check(RuleIndex index, int end, Box box, int[] corner, String as) {
    Space space = index.space();
    for (int axis = 0; axis < corner.length; axis++) {
      int number = axis;
      IntSet side = box.side(axis);
      assertThat(side.contains(corner[axis])).as(as).isTrue();
      long least =
          IntStream.range(0, space.classes(axis))
              .map(rank -> space.code(number, rank))
              .filter(side::contains)
              .mapToLong(code -> weight(index, end, number, code))
              .min()
              .orElseThrow();
      assertThat(weight(index, end, axis, corner[axis])).as(as).isEqualTo(least);
    }
  }

  @Test
  void noClassOfABoxIsHeldByFewerRules() {
    for (int seed = 0; seed < Rounds.of(12); seed++) {
      Random random = new Random(seed);
      RuleIndex index = new RuleIndex(base(rules(seed % 2 == 0 ? 120 : 9, random)));
      int places = 1 + random.nextInt(3);
      LeastCoveredPoint[] leastCovered = LeastCoveredPoint.upTo(index, places);
      for (int place = 0; place < places; place++) {
        int end = index.size() * (place + 1) / places;
        for (int i = 0; i < 8; i++) {
          List<Box> region = index.region(index.handleAt(random.nextInt(index.size())));
          for (Box box : region) {
            String as = "seed %d, up to %d: %s".formatted(seed, end, box);
            int[] corner = leastCovered[place].corner(box);
            check(index, end, box, corner, as);
            assertThat(leastCovered[place].of(box)).as("as picked").containsExactly(corner);
          }
        }
      }
    }
  }

  @Test
  void amongThousandsOfClassesToo() {
    Random random = new Random(1);
    RuleIndex index = new RuleIndex(base(rules(2000, random)));
    assertThat(index.space().classes(Space.SERVICE)).isGreaterThan(2500);
    LeastCoveredPoint leastCovered = LeastCoveredPoint.upTo(index, 1)[0];
    for (int i = 0; i < 6; i++) {
      for (Box box : index.region(index.handleAt(random.nextInt(index.size())))) {
        check(index, index.size(), box, leastCovered.corner(box), box.toString());
      }
    }
  }

  @Test
  void afterAnEditAPointOfTheBoxIsFoundStill() {
    for (int seed = 0; seed < Rounds.of(20); seed++) {
      Random random = new Random(seed);
      List<Rule> rules = new ArrayList<>(rules(30, random));
      RuleIndex index = new RuleIndex(base(rules));
      LeastCoveredPoint leastCovered = LeastCoveredPoint.upTo(index, 1)[0];
      Set<String> moved = new HashSet<>();
      for (int i = 0; i < 5; i++) {
        rules.set(random.nextInt(rules.size()), rule("n" + i, random));
      }
      assertThat(index.update(rules, moved)).isNotNull();
      for (int handle = 0; handle < index.handles(); handle++) {
        for (Box box : index.region(handle)) {
          assertThat(box.contains(leastCovered.corner(box))).as("seed %d: %s", seed, box).isTrue();
        }
      }
      LeastCoveredPoint anew = leastCovered.with(index, new int[] {Space.SERVICE});
      for (int position = 0; position < index.size(); position++) {
        for (Box box : index.region(index.handleAt(position))) {
          check(index, index.size(), box, anew.corner(box), "counted anew, seed " + seed);
        }
      }
    }
  }
}
