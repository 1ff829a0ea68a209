package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.analysis.Certificate.Pair;
import dev.ironsieve.core.analysis.Certificate.Standing;
import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.SplittableRandom;
import java.util.function.IntPredicate;
import org.junit.jupiter.api.Test;

/** What makes guesses good, against counting and against going down the rules. */
class GuessesTest {
  private static final int RULES = 160; // of which classes are cut enough for all strides

  private static Criterion<AddressItem> addresses(Random random) {
    List<AddressItem> items = new ArrayList<>();
    for (int i = random.nextInt(3); i > 0; i--) {
      Address host = new Address(Family.IPV4, 0, 10L << 24 | random.nextInt(1 << 16));
      items.add(new AddressItem.Literal(AddressRange.prefix(host, 18 + random.nextInt(14))));
    }
    return new Criterion<>(items, List.of());
  }

  private static Rule rule(String id, Random random) {
    int port = random.nextInt(60);
    ServiceItem service = ServiceLiteral.ports(6, port, port + random.nextInt(20));
    return Rule.matchingAll(id, id, random.nextBoolean() ? Verdict.ALLOW : Verdict.DROP)
        .matching(
            Criterion.any(),
            addresses(random),
            Criterion.any(),
            addresses(random),
            random.nextInt(3) == 0 ? Criterion.any() : Criterion.of(service))
        .enabled(random.nextInt(10) > 0);
  }

  private static Order order(Random random) {
    List<Rule> rules = new ArrayList<>();
    for (int i = 0; i < RULES; i++) {
      rules.add(rule("r" + i, random));
    }
    return new Order(
        new Rulebase(
            "test", List.of(), List.of(), List.of(), List.of(new Section("s", "S", rules))));
  }

  /** How many boxes of enabled rules above a place hold a label, but for those that hold all. */
  private static int weight(Order order, int end, int axis, int label) {
    int weight = 0;
    for (int i = 0; i < end; i++) {
      int slot = order.slotAt(i);
      for (Box box : order.rule(slot).enabled() ? order.region(slot) : List.<Box>of()) {
        IntSet side = box.side(axis);
        weight += side != order.space().all(axis) && side.contains(label) ? 1 : 0;
      }
    }
    return weight;
  }

  private static int lightest(Order order, int end, int axis, IntSet side) {
    Space space = order.space();
    int lightest = Integer.MAX_VALUE;
    for (int rank = 0; rank < space.classes(axis); rank++) {
      int label = space.label(axis, rank);
      if (side.contains(label)) {
        lightest = Math.min(lightest, weight(order, end, axis, label));
      }
    }
    return lightest;
  }

  @Test
  void aCornerIsWhereTheFewestRulesAboveAre() {
    for (int seed = 0; seed < Rounds.of(12); seed++) {
      Random random = new Random(seed);
      Order order = order(random);
      assertThat(order.space().classes(Space.FROM)).isGreaterThan(128);
      int places = 1 + random.nextInt(5);
      Corners[] counted = Corners.upTo(order, places);
      assertThat(counted).hasSize(places);
      for (int i = 0; i < 40; i++) {
        int place = random.nextInt(places);
        int end = RULES * (place + 1) / places;
        List<Box> region = order.region(random.nextInt(RULES));
        if (region.isEmpty()) {
          continue;
        }
        Box box = region.get(random.nextInt(region.size()));
        int[] corner = counted[place].corner(box);
        assertThat(box.contains(corner)).isTrue();
        for (int axis = 0; axis < corner.length; axis++) {
          assertThat(weight(order, end, axis, corner[axis]))
              .as("seed %d, axis %d of %s", seed, axis, box)
              .isEqualTo(lightest(order, end, axis, box.side(axis)));
        }
      }
    }
  }

  @Test
  void theFirstPointInsideIsTheOneThatGoingDownFinds() {
    int found = 0;
    for (int seed = 0; seed < Rounds.of(60); seed++) {
      Random random = new Random(seed);
      Order order = order(random);
      Certificates certificates = new Certificates(order, LiveAnalysis.STEPS);
      Standing[] standings = new Standing[RULES];
      for (int slot = 0; slot < RULES; slot++) {
        standings[slot] = certificates.standing(slot);
      }
      Witnesses witnesses = new Witnesses(order, standings);
      IntPredicate test = slot -> slot % 3 != 0;
      for (int position = 0; position < RULES; position++) {
        int slot = order.slotAt(position);
        int expected = Order.NONE;
        for (int above = position - 1; above >= 0; above--) {
          int other = order.slotAt(above);
          if (order.verdict(other) != order.verdict(slot)
              && standings[other] instanceof Standing.Decides decides
              && order.holds(slot, decides.point())
              && test.test(other)) {
            expected = other;
          }
        }
        assertThat(witnesses.firstInside(slot, test))
            .as("seed %d, rule %d", seed, slot)
            .isEqualTo(expected);
        found += expected == Order.NONE ? 0 : 1;
      }
    }
    assertThat(found).isGreaterThanOrEqualTo(Rounds.least(300));
  }

  @Test
  void ofAPairTheEarlierRuleDecidesThePointAndOverlaps() {
    int shadowed = 0;
    int deciding = 0;
    for (int seed = 0; seed < Rounds.of(60); seed++) {
      Order order = order(new Random(seed));
      Certificates certificates = new Certificates(order, LiveAnalysis.STEPS);
      for (int slot = 0; slot < RULES; slot++) {
        if (!(certificates.correlated(slot) instanceof Pair.Found found)) {
          continue;
        }
        int other = found.other();
        assertThat(order.holds(slot, found.point())).isTrue();
        assertThat(order.first(found.point())).isEqualTo(other);
        assertThat(order.position(other)).isLessThan(order.position(slot));
        assertThat(order.verdict(other)).isNotEqualTo(order.verdict(slot));
        assertThat(Regions.holdsAll(order.region(slot), order.region(other))).isFalse();
        assertThat(Regions.holdsAll(order.region(other), order.region(slot))).isFalse();
        shadowed += certificates.standing(slot) instanceof Standing.Covered ? 1 : 0;
        deciding += certificates.standing(slot) instanceof Standing.Decides ? 1 : 0;
      }
    }
    assertThat(shadowed).isGreaterThanOrEqualTo(Rounds.least(200));
    assertThat(deciding).isGreaterThanOrEqualTo(Rounds.least(500));
  }

  @Test
  void aRuleWithoutPairsIsNowhereDecidedByAnEarlierRuleThatOverlaps() {
    int redundant = 0;
    for (int seed = 0; seed < Rounds.of(60); seed++) {
      Order order = order(new Random(seed));
      Certificates certificates = new Certificates(order, LiveAnalysis.STEPS);
      for (int slot = 0; slot < RULES; slot++) {
        if (order.region(slot).isEmpty() || !order.rule(slot).enabled()) {
          continue;
        }
        boolean correlated = certificates.correlated(slot) instanceof Pair.Found;
        boolean generalised = certificates.generalised(slot) instanceof Pair.Found;
        SplittableRandom random = new SplittableRandom(slot);
        for (int i = 0; i < 20; i++) {
          int[] point = order.space().pick(order.region(slot).getFirst(), random);
          int first = order.first(point);
          if (order.verdict(first) == order.verdict(slot)) {
            continue;
          }
          boolean inside = Regions.holdsAll(order.region(slot), order.region(first));
          boolean outside = Regions.holdsAll(order.region(first), order.region(slot));
          assertThat(correlated || inside || outside).as("seed %d, rule %d", seed, slot).isTrue();
          assertThat(generalised || !inside).as("seed %d, rule %d", seed, slot).isTrue();
        }
        redundant +=
            certificates.standing(slot) instanceof Standing.Covered covered && !covered.shadowed()
                ? 1
                : 0;
      }
    }
    assertThat(redundant).isGreaterThanOrEqualTo(Rounds.least(100));
  }

  @Test
  void theWidestRuleIsTakenIn() {
    List<Rule> rules = new ArrayList<>();
    for (int port = 0; port < 30; port++) {
      rules.add(onPorts("slice-" + port, port, port + 1));
    }
    rules.add(onPorts("left", 0, 17));
    rules.add(onPorts("whole", 0, 40));
    rules.add(onPorts("target", 2, 25));
    Order order =
        new Order(
            new Rulebase(
                "test", List.of(), List.of(), List.of(), List.of(new Section("s", "S", rules))));
    int target = order.slot("target");
    Questions questions = new Questions(order, LiveAnalysis.STEPS);
    Outcome outcome =
        questions.coveredBefore(
            target,
            order.region(target),
            Corners.upTo(order, 1)[0],
            new Budget(LiveAnalysis.STEPS));
    assertThat(outcome).isEqualTo(new Outcome.Covered(IntSet.of(order.slot("whole"))));
  }

  private static Rule onPorts(String id, int first, int last) {
    return Rule.matchingAll(id, id, Verdict.ALLOW)
        .matching(
            Criterion.any(),
            Criterion.any(),
            Criterion.any(),
            Criterion.any(),
            Criterion.of(ServiceLiteral.ports(6, first, last)));
  }
}
