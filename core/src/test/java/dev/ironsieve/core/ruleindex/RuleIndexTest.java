package dev.ironsieve.core.ruleindex;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.entry;

import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
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
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** The indexes of an order against going down the rules, also after many updates. */
class RuleIndexTest {
  private static final int POINTS = 40;
  private static final int MOST_UNUSED = 3; // times the rules and a hundred, of handles
  private static final int MOST_ASKED = 24; // rules whose overlaps are compared

  private static boolean holds(RuleIndex index, int handle, int[] point) {
    return index.region(handle).stream().anyMatch(box -> box.contains(point));
  }

  /** The first enabled rule from a position on that holds a point: the obvious way. */
  private static int firstFrom(RuleIndex index, int position, int[] point) {
    for (int i = position; i < index.size(); i++) {
      int handle = index.handleAt(i);
      if (index.rule(handle).enabled() && holds(index, handle, point)) {
        return handle;
      }
    }
    return RuleIndex.NONE;
  }

  private static int[] overlapping(
      RuleIndex index, List<Box> wanted, int from, int to, IntPredicate which) {
    return IntStream.range(from, Math.min(to, index.size()))
        .map(index::handleAt)
        .filter(handle -> index.rule(handle).enabled() && which.test(handle))
        .filter(
            handle ->
                index.region(handle).stream()
                    .anyMatch(box -> wanted.stream().anyMatch(box::intersects)))
        .toArray();
  }

  private static void check(
      RuleIndex index, List<Rule> rules, SplittableRandom random, String where) {
    assertThat(index.size()).as(where).isEqualTo(rules.size());
    for (int i = 0; i < rules.size(); i++) {
      int handle = index.handleAt(i);
      assertThat(index.rule(handle)).as(where).isSameAs(rules.get(i));
      assertThat(index.position(handle)).as(where).isEqualTo(i);
      assertThat(index.handle(rules.get(i).id())).as(where).isEqualTo(handle);
      assertThat(index.verdict(handle)).as(where).isEqualTo(rules.get(i).verdict());
    }
    int[] latestFirst =
        IntStream.range(0, rules.size()).map(i -> index.handleAt(rules.size() - 1 - i)).toArray();
    assertThat(index.latestFirst(IntSet.of(latestFirst.clone()))).isEqualTo(latestFirst);
    List<Box> everything = index.space().everything();
    for (int i = 0; i < POINTS; i++) {
      int[] point = index.space().pick(everything.get(random.nextInt(everything.size())), random);
      int from = random.nextInt(index.size() + 1);
      assertThat(index.firstFrom(from, point))
          .as("%s: from %d at %s", where, from, Arrays.toString(point))
          .isEqualTo(firstFrom(index, from, point));
      int first = firstFrom(index, 0, point);
      assertThat(index.first(point)).as(where).isEqualTo(first);
      assertThat(index.ruleAt(point)).isSameAs(first == RuleIndex.NONE ? null : index.rule(first));
      if (first != RuleIndex.NONE) {
        assertThat(index.holds(first, point)).as(where).isTrue();
        assertThat(index.firstWithout(first, point))
            .as(where)
            .isEqualTo(firstFrom(index, index.position(first) + 1, point));
        if (index.size() > 1) {
          int other = index.handleAt(random.nextInt(index.size()));
          assertThat(index.firstWithout(other, point))
              .isEqualTo(
                  other == first ? firstFrom(index, index.position(other) + 1, point) : first);
        }
      }
    }
    IntSet[] all = new IntSet[index.space().axes()];
    Arrays.setAll(all, index.space()::all);
    List<Box> both = List.of(new Box(all)); // so wide that it lies in many cells
    assertThat(index.overlapping(both, 0, index.size()))
        .as(where)
        .isEqualTo(overlapping(index, both, 0, index.size(), handle -> true));
    for (int i = 0; i < Math.min(index.size(), MOST_ASKED); i++) {
      boolean few = index.size() <= MOST_ASKED;
      List<Box> wanted = index.region(index.handleAt(few ? i : random.nextInt(index.size())));
      int from = random.nextInt(index.size() + 1);
      int to = from + random.nextInt(index.size() + 1 - from);
      assertThat(index.overlapping(wanted, from, to))
          .as("%s: from %d to %d meeting %s", where, from, to, wanted)
          .isEqualTo(overlapping(index, wanted, from, to, handle -> true));
      IntPredicate odd = handle -> handle % 2 == 1;
      OverlapQuery overlaps = index.overlaps(wanted);
      assertThat(overlaps.all(0, index.size(), odd))
          .as(where)
          .isEqualTo(overlapping(index, wanted, 0, index.size(), odd));
      int some = overlaps.some(from, to, handle -> true, odd);
      int[] possible = overlapping(index, wanted, from, to, odd);
      if (possible.length == 0) {
        assertThat(some).as(where).isEqualTo(RuleIndex.NONE);
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
      RuleIndex index = new RuleIndex(base);
      SplittableRandom points = new SplittableRandom(seed);
      check(index, rules, points, "seed " + seed);
      Random random = new Random(seed);
      for (int step = 0; step < 25; step++) {
        Set<String> moved = new HashSet<>();
        List<Rule> next = edited(world, rules, moved, random, step);
        String where = "seed " + seed + " step " + step;
        Optional<RuleIndex.Change> change = index.update(next, moved);
        if (change.isEmpty()) {
          index =
              new RuleIndex(
                  index.resolution(), next, RuleIndex.space(index.resolution(), next, List.of()));
        } else {
          inPlace++;
          checkChange(index, rules, next, change.get(), where);
        }
        rules = next;
        check(index, rules, points, where);
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
      RuleIndex index = new RuleIndex(base);
      SplittableRandom points = new SplittableRandom(rules);
      check(index, all, points, rules + " rules");
      Random random = new Random(rules);
      for (int step = 0; step < 6; step++) {
        Set<String> moved = new HashSet<>();
        List<Rule> next = edited(world, all, moved, random, step);
        String where = rules + " rules, step " + step;
        RuleIndex.Change change = index.update(next, moved).orElseThrow();
        checkChange(index, all, next, change, where);
        all = next;
        check(index, all, points, where);
      }
    }
  }

  /** What is gone was there, what is fresh was not, and nothing else decides otherwise. */
  private static void checkChange(
      RuleIndex index, List<Rule> before, List<Rule> after, RuleIndex.Change change, String where) {
    Set<Integer> fresh = new HashSet<>(change.fresh());
    assertThat(Collections.disjoint(change.gone().keySet(), fresh)).as(where).isTrue();
    change
        .gone()
        .forEach((handle, place) -> assertThat(index.position(handle)).as(where).isEqualTo(-1));
    change
        .gone()
        .forEach(
            (handle, place) ->
                assertThat(index.rule(handle)).as(where).isSameAs(before.get(place)));
    for (Rule rule : after) {
      int handle = index.handle(rule.id());
      boolean was = before.contains(rule);
      if (!was) {
        assertThat(fresh.contains(handle) || change.reworded().contains(handle)).as(where).isTrue();
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
      RuleIndex index = new RuleIndex(world.rulebase(1).withSections(sections(rules)));
      SplittableRandom points = new SplittableRandom(seed);
      check(index, rules, points, "seed " + seed); // makes what both share
      Random random = new Random(seed);
      List<Rule> next = rules;
      for (int step = 0; step < 3; step++) {
        next = edited(world, next, new HashSet<>(), random, step);
      }
      RuleIndex other = index.with(next).orElseThrow();
      assertThat(other.space()).isSameAs(index.space());
      for (int step = 3; step < 6; step++) {
        String where = "seed " + seed + " step " + step;
        check(other, next, points, where + ", the one that came after");
        check(index, rules, points, where + ", the one before");
        Set<String> moved = new HashSet<>();
        List<Rule> more = edited(world, step % 2 == 0 ? next : rules, moved, random, step);
        if ((step % 2 == 0 ? other : index).update(more, moved).isEmpty()) {
          break;
        }
        next = step % 2 == 0 ? more : next;
        rules = step % 2 == 0 ? rules : more;
      }
    }
  }

  @Test
  void aRuleThatKeepsItsPlaceAmongTheOthersKeepsItsHandleInAnotherState() {
    SmallWorld world = new SmallWorld(3, true);
    List<Rule> rules = IntStream.range(0, 9).mapToObj(i -> world.rule("r" + i)).toList();
    RuleIndex index = new RuleIndex(world.rulebase(1).withSections(sections(rules)));
    List<Rule> next = new ArrayList<>(rules);
    next.add(1, next.remove(7));
    next.remove(4);
    next.add(world.rule("new"));
    RuleIndex other = index.with(next).orElseThrow();
    for (Rule rule : rules) {
      int handle = index.handle(rule.id());
      boolean alike = !rule.id().equals("r7") && next.contains(rule);
      assertThat(other.handle(rule.id()) == handle).as(rule.id()).isEqualTo(alike);
    }
    assertThat(other.handles()).as("one that moved, one that is new").isEqualTo(rules.size() + 2);
  }

  private static List<Section> sections(List<Rule> rules) {
    return List.of(new Section("s", "S", rules));
  }

  @Test
  void whereNothingHoldsTheClosingRuleDrops() {
    RuleIndex index =
        new RuleIndex(new Rulebase("none", List.of(), List.of(), List.of(), List.of()));
    int[] point = index.space().everything().getFirst().lowest();
    assertThat(index.first(point)).isEqualTo(RuleIndex.NONE);
    assertThat(index.ruleAt(point)).isNull();
    assertThat(index.verdict(RuleIndex.NONE)).isEqualTo(Verdict.DROP);
    assertThat(index.handle("nobody")).isEqualTo(RuleIndex.NONE);
    assertThat(index.overlapping(index.space().everything(), 0, 5)).isEmpty();
  }

  private static RuleIndex threeRules() {
    List<Rule> rules =
        List.of(
            Rule.matchingAll("a", "first", Verdict.ALLOW),
            Rule.matchingAll("b", "second", Verdict.ALLOW),
            Rule.matchingAll("c", "third", Verdict.DROP));
    return new RuleIndex(
        new Rulebase(
            "three",
            List.of(new Zone("inside", List.of(), ""), new Zone("outside", List.of(), "")),
            List.of(),
            List.of(),
            List.of(new Section("s", "S", rules))));
  }

  private static RuleIndex.Change update(RuleIndex index, Rule second, String... moved) {
    return tryUpdate(index, second, moved).orElseThrow();
  }

  private static Optional<RuleIndex.Change> tryUpdate(
      RuleIndex index, Rule second, String... moved) {
    List<Rule> next = List.of(index.rule(index.handleAt(0)), second, index.rule(index.handleAt(2)));
    return index.update(next, Set.of(moved));
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
      RuleIndex index = threeRules();
      int handle = index.handleAt(1);
      RuleIndex.Change change = update(index, second);
      assertThat(change.gone()).as(second.toString()).containsExactly(entry(handle, 1));
      assertThat(change.fresh()).containsExactly(index.handleAt(1)).doesNotContain(handle);
      assertThat(change.reworded()).isEmpty();
    }
    RuleIndex index = threeRules();
    int handle = index.handleAt(1);
    RuleIndex.Change renamed = update(index, Rule.matchingAll("b", "another name", Verdict.ALLOW));
    assertThat(renamed).isEqualTo(new RuleIndex.Change(Map.of(), List.of(), List.of(handle)));
    assertThat(index.handleAt(1)).isEqualTo(handle);
    assertThat(update(index, index.rule(handle)))
        .isEqualTo(new RuleIndex.Change(Map.of(), List.of(), List.of()));
    Rule bothZones =
        narrower.matching(
            Criterion.of("inside", "outside"),
            Criterion.any(),
            Criterion.any(),
            Criterion.any(),
            Criterion.any());
    assertThat(update(index, bothZones)).as("the same in other words").isEqualTo(renamed);
    assertThat(update(index, index.rule(handle).leaving(Opening.OPENED), "b").fresh()).hasSize(1);
  }

  @Test
  void whatIsGoneTakesNoMoreThanSomeRoom() {
    RuleIndex index = threeRules();
    int updates = 0;
    boolean allow = true;
    do {
      allow = !allow;
      updates++;
    } while (tryUpdate(index, Rule.matchingAll("b", "b", allow ? Verdict.ALLOW : Verdict.DROP))
        .isPresent());
    assertThat(index.handles()).isEqualTo(MOST_UNUSED * (3 + 100));
    assertThat(updates).isEqualTo(index.handles() - 3 + 1);
    assertThat(index.rule(index.handleAt(1)).verdict())
        .isEqualTo(allow ? Verdict.DROP : Verdict.ALLOW);
  }

  @Test
  void holdersAreThoseThatHoldThePointInOrder() {
    int several = 0;
    for (int seed = 0; seed < 3 + Rounds.of(30); seed++) {
      List<Rule> rules = new ArrayList<>(new SmallWorld(seed).rulebase(30).rules());
      RuleIndex index = new RuleIndex(new SmallWorld(seed).rulebase(30));
      several += withSeveralHolders(index, seed);
      Rule last = rules.removeLast();
      rules.addFirst(last);
      assertThat(index.update(rules, Set.of(last.id()))).isNotNull();
      withSeveralHolders(index, seed); // now handles do not rise with positions
    }
    assertThat(several).isPositive();
  }

  private static int withSeveralHolders(RuleIndex index, int seed) {
    int several = 0;
    SplittableRandom random = new SplittableRandom(seed);
    for (int i = 0; i < index.size(); i++) {
      int handle = index.handleAt(i);
      if (!index.rule(handle).enabled() || index.region(handle).isEmpty()) {
        continue;
      }
      int[] point = index.space().pick(index.region(handle).getFirst(), random);
      int[] expected =
          IntStream.range(0, i)
              .map(index::handleAt)
              .filter(other -> index.rule(other).enabled() && index.holds(other, point))
              .toArray();
      assertThat(index.holdingAbove(i, point, i)).as("seed %d, %d", seed, i).isEqualTo(expected);
      int half = expected.length / 2;
      assertThat(index.holdingAbove(i, point, half)).isEqualTo(Arrays.copyOf(expected, half));
      several += expected.length > 1 ? 1 : 0;
    }
    return several;
  }
}
