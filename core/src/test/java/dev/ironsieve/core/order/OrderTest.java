package dev.ironsieve.core.order;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.entry;

import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** The indexes of an order against going down the rules, also after many updates. */
class OrderTest {
  private static final int POINTS = 40;
  private static final int MOST_UNUSED = 3; // times the rules and a hundred, of slots
  private static final int MOST_ASKED = 24; // rules of which it is asked whom they meet

  private static boolean holds(Order order, int slot, int[] point) {
    return order.region(slot).stream().anyMatch(box -> box.contains(point));
  }

  /** The first enabled rule from a position on that holds a point: the obvious way. */
  private static int firstFrom(Order order, int position, int[] point) {
    for (int i = position; i < order.size(); i++) {
      int slot = order.slotAt(i);
      if (order.rule(slot).enabled() && holds(order, slot, point)) {
        return slot;
      }
    }
    return Order.NONE;
  }

  private static int[] meeting(
      Order order, List<Box> wanted, int from, int to, IntPredicate which) {
    return IntStream.range(from, Math.min(to, order.size()))
        .map(order::slotAt)
        .filter(slot -> order.rule(slot).enabled() && which.test(slot))
        .filter(
            slot ->
                order.region(slot).stream()
                    .anyMatch(box -> wanted.stream().anyMatch(box::intersects)))
        .toArray();
  }

  private static void check(Order order, List<Rule> rules, SplittableRandom random, String where) {
    assertThat(order.size()).as(where).isEqualTo(rules.size());
    for (int i = 0; i < rules.size(); i++) {
      int slot = order.slotAt(i);
      assertThat(order.rule(slot)).as(where).isSameAs(rules.get(i));
      assertThat(order.position(slot)).as(where).isEqualTo(i);
      assertThat(order.slot(rules.get(i).id())).as(where).isEqualTo(slot);
      assertThat(order.verdict(slot)).as(where).isEqualTo(rules.get(i).verdict());
    }
    int[] latestFirst =
        IntStream.range(0, rules.size()).map(i -> order.slotAt(rules.size() - 1 - i)).toArray();
    assertThat(order.latestFirst(IntSet.of(latestFirst.clone()))).isEqualTo(latestFirst);
    List<Box> everything = order.space().everything();
    for (int i = 0; i < POINTS; i++) {
      int[] point = order.space().pick(everything.get(random.nextInt(everything.size())), random);
      int from = random.nextInt(order.size() + 1);
      assertThat(order.firstFrom(from, point))
          .as("%s: from %d at %s", where, from, Arrays.toString(point))
          .isEqualTo(firstFrom(order, from, point));
      int first = firstFrom(order, 0, point);
      assertThat(order.first(point)).as(where).isEqualTo(first);
      assertThat(order.ruleAt(point)).isSameAs(first == Order.NONE ? null : order.rule(first));
      if (first != Order.NONE) {
        assertThat(order.holds(first, point)).as(where).isTrue();
        assertThat(order.firstWithout(first, point))
            .as(where)
            .isEqualTo(firstFrom(order, order.position(first) + 1, point));
        if (order.size() > 1) {
          int other = order.slotAt(random.nextInt(order.size()));
          assertThat(order.firstWithout(other, point))
              .isEqualTo(
                  other == first ? firstFrom(order, order.position(other) + 1, point) : first);
        }
      }
    }
    IntSet[] all = new IntSet[order.space().axes()];
    Arrays.setAll(all, order.space()::all);
    List<Box> both = List.of(new Box(all)); // so wide that it lies in many cells
    assertThat(order.meeting(both, 0, order.size()))
        .as(where)
        .isEqualTo(meeting(order, both, 0, order.size(), slot -> true));
    for (int i = 0; i < Math.min(order.size(), MOST_ASKED); i++) {
      boolean few = order.size() <= MOST_ASKED;
      List<Box> wanted = order.region(order.slotAt(few ? i : random.nextInt(order.size())));
      int from = random.nextInt(order.size() + 1);
      int to = from + random.nextInt(order.size() + 1 - from);
      assertThat(order.meeting(wanted, from, to))
          .as("%s: from %d to %d meeting %s", where, from, to, wanted)
          .isEqualTo(meeting(order, wanted, from, to, slot -> true));
      IntPredicate odd = slot -> slot % 2 == 1;
      Around around = order.around(wanted);
      assertThat(around.all(0, order.size(), odd))
          .as(where)
          .isEqualTo(meeting(order, wanted, 0, order.size(), odd));
      int some = around.some(from, to, slot -> true, odd);
      int[] possible = meeting(order, wanted, from, to, odd);
      if (possible.length == 0) {
        assertThat(some).as(where).isEqualTo(Order.NONE);
      } else {
        assertThat(possible).as(where).contains(some);
      }
    }
  }

  /** Another state of the rules: some gone, some new, some moved, some otherwise. */
  private static List<Rule> edited(
      SmallWorld world, List<Rule> rules, Set<String> moved, Random random, int step) {
    List<Rule> next = new ArrayList<>(rules);
    switch (random.nextInt(5)) {
      case 0 -> next.add(random.nextInt(next.size() + 1), world.rule("new" + step));
      case 1 -> {
        if (next.size() > 1) {
          next.remove(random.nextInt(next.size()));
        }
      }
      case 2 -> {
        int from = random.nextInt(next.size());
        int to = random.nextInt(next.size());
        moved.add(next.get(from).id());
        next.add(to, next.remove(from));
      }
      case 3 -> {
        int at = random.nextInt(next.size());
        next.set(at, world.rule(next.get(at).id()));
      }
      default -> {
        int at = random.nextInt(next.size());
        next.set(at, next.get(at).enabled(!next.get(at).enabled()));
      }
    }
    return next;
  }

  @Test
  void indexesAgreeWithGoingDownTheRules() {
    int inPlace = 0;
    for (int seed = 0; seed < Rounds.of(60); seed++) {
      boolean withTerms = seed % 2 == 0;
      SmallWorld world = new SmallWorld(seed, withTerms);
      Rulebase base = world.rulebase(24);
      List<Rule> rules = base.rules();
      if (rules.isEmpty()) {
        continue;
      }
      Order order = new Order(base);
      SplittableRandom points = new SplittableRandom(seed);
      check(order, rules, points, "seed " + seed);
      Random random = new Random(seed);
      for (int step = 0; step < 25; step++) {
        Set<String> moved = new HashSet<>();
        List<Rule> next = edited(world, rules, moved, random, step);
        String where = "seed " + seed + " step " + step;
        Order.Change change = order.update(next, moved);
        if (change == null) {
          order =
              new Order(order.resolution(), next, Order.space(order.resolution(), next, List.of()));
        } else {
          inPlace++;
          checkChange(order, rules, next, change, where);
        }
        rules = next;
        check(order, rules, points, where);
      }
    }
    assertThat(inPlace).isGreaterThan(Rounds.least(1000));
  }

  /** So many boxes that a row of bits is several words, and all of them several chunks. */
  @Test
  void indexesOfManyRulesAgreeWithGoingDownThem() {
    for (int rules : new int[] {90, 700, Rounds.of(4300)}) {
      SmallWorld world = new SmallWorld(rules, true);
      List<Rule> all = new ArrayList<>();
      for (int i = 0; i < rules; i++) {
        all.add(world.rule("r" + i));
      }
      Rulebase base = world.rulebase(1).withSections(sections(all));
      Order order = new Order(base);
      SplittableRandom points = new SplittableRandom(rules);
      check(order, all, points, rules + " rules");
      Random random = new Random(rules);
      for (int step = 0; step < 6; step++) {
        Set<String> moved = new HashSet<>();
        List<Rule> next = edited(world, all, moved, random, step);
        String where = rules + " rules, step " + step;
        Order.Change change = order.update(next, moved);
        assertThat(change).as(where).isNotNull();
        checkChange(order, all, next, change, where);
        all = next;
        check(order, all, points, where);
      }
    }
  }

  /** What is gone was there, what is fresh was not, and nothing else decides otherwise. */
  private static void checkChange(
      Order order, List<Rule> before, List<Rule> after, Order.Change change, String where) {
    Set<Integer> fresh = new HashSet<>(change.fresh());
    assertThat(Collections.disjoint(change.gone().keySet(), fresh)).as(where).isTrue();
    change
        .gone()
        .forEach((slot, place) -> assertThat(order.position(slot)).as(where).isEqualTo(-1));
    change
        .gone()
        .forEach(
            (slot, place) -> assertThat(order.rule(slot)).as(where).isSameAs(before.get(place)));
    for (Rule rule : after) {
      int slot = order.slot(rule.id());
      boolean was = before.contains(rule);
      if (!was) {
        assertThat(fresh.contains(slot) || change.reworded().contains(slot)).as(where).isTrue();
      }
    }
  }

  @Test
  void anotherStateGoesOnFromThisOneAndLeavesItAsItIs() {
    for (int seed = 0; seed < Rounds.of(60); seed++) {
      SmallWorld world = new SmallWorld(seed, seed % 2 == 0);
      List<Rule> rules = world.rulebase(20).rules();
      if (rules.isEmpty()) {
        continue;
      }
      Order order = new Order(world.rulebase(1).withSections(sections(rules)));
      SplittableRandom points = new SplittableRandom(seed);
      check(order, rules, points, "seed " + seed); // makes what both share
      Random random = new Random(seed);
      List<Rule> next = rules;
      for (int step = 0; step < 3; step++) {
        next = edited(world, next, new HashSet<>(), random, step);
      }
      Order other = order.with(next);
      assertThat(other.space()).isSameAs(order.space());
      for (int step = 3; step < 6; step++) {
        String where = "seed " + seed + " step " + step;
        check(other, next, points, where + ", the one that came after");
        check(order, rules, points, where + ", the one before");
        Set<String> moved = new HashSet<>();
        List<Rule> more = edited(world, step % 2 == 0 ? next : rules, moved, random, step);
        if ((step % 2 == 0 ? other : order).update(more, moved) == null) {
          break;
        }
        next = step % 2 == 0 ? more : next;
        rules = step % 2 == 0 ? rules : more;
      }
    }
  }

  @Test
  void aRuleThatKeepsItsPlaceAmongTheOthersKeepsItsSlotInAnotherState() {
    SmallWorld world = new SmallWorld(3, true);
    List<Rule> rules = IntStream.range(0, 9).mapToObj(i -> world.rule("r" + i)).toList();
    Order order = new Order(world.rulebase(1).withSections(sections(rules)));
    List<Rule> next = new ArrayList<>(rules);
    next.add(1, next.remove(7));
    next.remove(4);
    next.add(world.rule("new"));
    Order other = order.with(next);
    for (Rule rule : rules) {
      int slot = order.slot(rule.id());
      boolean alike = !rule.id().equals("r7") && next.contains(rule);
      assertThat(other.slot(rule.id()) == slot).as(rule.id()).isEqualTo(alike);
    }
    assertThat(other.slots()).as("one that moved, one that is new").isEqualTo(rules.size() + 2);
  }

  private static List<Section> sections(List<Rule> rules) {
    return List.of(new Section("s", "S", rules));
  }

  @Test
  void whereNothingHoldsTheClosingRuleDrops() {
    Order order = new Order(new Rulebase("none", List.of(), List.of(), List.of(), List.of()));
    int[] point = order.space().everything().getFirst().lowest();
    assertThat(order.first(point)).isEqualTo(Order.NONE);
    assertThat(order.ruleAt(point)).isNull();
    assertThat(order.verdict(Order.NONE)).isEqualTo(Verdict.DROP);
    assertThat(order.slot("nobody")).isEqualTo(Order.NONE);
    assertThat(order.meeting(order.space().everything(), 0, 5)).isEmpty();
  }

  private static Order threeRules() {
    List<Rule> rules =
        List.of(
            Rule.matchingAll("a", "first", Verdict.ALLOW),
            Rule.matchingAll("b", "second", Verdict.ALLOW),
            Rule.matchingAll("c", "third", Verdict.DROP));
    return new Order(
        new Rulebase(
            "three",
            List.of(new Zone("inside", List.of(), ""), new Zone("outside", List.of(), "")),
            List.of(),
            List.of(),
            List.of(new Section("s", "S", rules))));
  }

  private static Order.Change update(Order order, Rule second, String... moved) {
    List<Rule> next = List.of(order.rule(order.slotAt(0)), second, order.rule(order.slotAt(2)));
    return order.update(next, Set.of(moved));
  }

  @Test
  void onlyWhatDecidesOtherwiseIsGoneAndFresh() {
    Rule narrower =
        Rule.matchingAll("b", "second", Verdict.ALLOW)
            .matching(
                Criterion.of("inside"),
                Criterion.any(),
                Criterion.any(),
                Criterion.any(),
                Criterion.any());
    for (Rule second :
        List.of(
            Rule.matchingAll("b", "second", Verdict.DROP),
            Rule.matchingAll("b", "second", Verdict.ALLOW).enabled(false),
            narrower)) {
      Order order = threeRules();
      int slot = order.slotAt(1);
      Order.Change change = update(order, second);
      assertThat(change.gone()).as(second.toString()).containsExactly(entry(slot, 1));
      assertThat(change.fresh()).containsExactly(order.slotAt(1)).doesNotContain(slot);
      assertThat(change.reworded()).isEmpty();
    }
    Order order = threeRules();
    int slot = order.slotAt(1);
    Order.Change renamed = update(order, Rule.matchingAll("b", "another name", Verdict.ALLOW));
    assertThat(renamed).isEqualTo(new Order.Change(Map.of(), List.of(), List.of(slot)));
    assertThat(order.slotAt(1)).isEqualTo(slot);
    assertThat(update(order, order.rule(slot)))
        .isEqualTo(new Order.Change(Map.of(), List.of(), List.of()));
    Rule bothZones =
        narrower.matching(
            Criterion.of("inside", "outside"),
            Criterion.any(),
            Criterion.any(),
            Criterion.any(),
            Criterion.any());
    assertThat(update(order, bothZones)).as("the same in other words").isEqualTo(renamed);
    assertThat(update(order, order.rule(slot).leaving(Opening.OPENED), "b").fresh()).hasSize(1);
  }

  @Test
  void whatIsGoneTakesNoMoreThanSomeRoom() {
    Order order = threeRules();
    int updates = 0;
    boolean allow = true;
    do {
      allow = !allow;
      updates++;
    } while (update(order, Rule.matchingAll("b", "b", allow ? Verdict.ALLOW : Verdict.DROP))
        != null);
    assertThat(order.slots()).isEqualTo(MOST_UNUSED * (3 + 100));
    assertThat(updates).isEqualTo(order.slots() - 3 + 1);
    assertThat(order.rule(order.slotAt(1)).verdict())
        .isEqualTo(allow ? Verdict.DROP : Verdict.ALLOW);
  }

  @Test
  void holdersAreThoseThatHoldThePointInOrder() {
    int several = 0;
    for (int seed = 0; seed < 3 + Rounds.of(30); seed++) {
      List<Rule> rules = new ArrayList<>(new SmallWorld(seed).rulebase(30).rules());
      Order order = new Order(new SmallWorld(seed).rulebase(30));
      several += withSeveralHolders(order, seed);
      Rule last = rules.removeLast();
      rules.addFirst(last);
      assertThat(order.update(rules, Set.of(last.id()))).isNotNull();
      withSeveralHolders(order, seed); // now slots do not rise with positions
    }
    assertThat(several).isPositive();
  }

  private static int withSeveralHolders(Order order, int seed) {
    int several = 0;
    SplittableRandom random = new SplittableRandom(seed);
    for (int i = 0; i < order.size(); i++) {
      int slot = order.slotAt(i);
      if (!order.rule(slot).enabled() || order.region(slot).isEmpty()) {
        continue;
      }
      int[] point = order.space().pick(order.region(slot).getFirst(), random);
      int[] expected =
          IntStream.range(0, i)
              .map(order::slotAt)
              .filter(other -> order.rule(other).enabled() && order.holds(other, point))
              .toArray();
      assertThat(order.holdingAbove(i, point, i)).as("seed %d, %d", seed, i).isEqualTo(expected);
      int half = expected.length / 2;
      assertThat(order.holdingAbove(i, point, half)).isEqualTo(Arrays.copyOf(expected, half));
      several += expected.length > 1 ? 1 : 0;
    }
    return several;
  }
}
