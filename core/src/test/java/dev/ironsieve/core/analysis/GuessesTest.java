package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.analysis.Certificate.PairProof;
import dev.ironsieve.core.analysis.Certificate.StandingProof;
import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
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

  private static RuleIndex index(Random random) {
    List<Rule> rules = new ArrayList<>();
    for (int i = 0; i < RULES; i++) {
      rules.add(rule("r" + i, random));
    }
    return new RuleIndex(
        new Rulebase(
            "test", List.of(), List.of(), List.of(), List.of(new Section("s", "S", rules))));
  }

  /** How many boxes of enabled rules above a place hold a code, but for those that hold all. */
  private static int weight(RuleIndex index, int end, int axis, int code) {
    int weight = 0;
    for (int i = 0; i < end; i++) {
      int handle = index.handleAt(i);
      for (Box box : index.rule(handle).enabled() ? index.region(handle) : List.<Box>of()) {
        IntSet side = box.side(axis);
        weight += side != index.space().all(axis) && side.contains(code) ? 1 : 0;
      }
    }
    return weight;
  }

  private static int lightest(RuleIndex index, int end, int axis, IntSet side) {
    Space space = index.space();
    int lightest = Integer.MAX_VALUE;
    for (int rank = 0; rank < space.classes(axis); rank++) {
      int code = space.code(axis, rank);
      if (side.contains(code)) {
        lightest = Math.min(lightest, weight(index, end, axis, code));
      }
    }
    return lightest;
  }

  @Test
  void aCornerIsWhereTheFewestRulesAboveAre() {
    for (int seed = 0; seed < Rounds.of(12); seed++) {
      Random random = new Random(seed);
      RuleIndex index = index(random);
      assertThat(index.space().classes(Space.FROM)).isGreaterThan(128);
      int places = 1 + random.nextInt(5);
      LeastCoveredPoint[] counted = LeastCoveredPoint.upTo(index, places);
      assertThat(counted).hasSize(places);
      for (int i = 0; i < 40; i++) {
        int place = random.nextInt(places);
        int end = RULES * (place + 1) / places;
        List<Box> region = index.region(random.nextInt(RULES));
        if (region.isEmpty()) {
          continue;
        }
        Box box = region.get(random.nextInt(region.size()));
        int[] corner = counted[place].corner(box);
        assertThat(box.contains(corner)).isTrue();
        for (int axis = 0; axis < corner.length; axis++) {
          assertThat(weight(index, end, axis, corner[axis]))
              .as("seed %d, axis %d of %s", seed, axis, box)
              .isEqualTo(lightest(index, end, axis, box.side(axis)));
        }
      }
    }
  }

  @Test
  void theFirstPointInsideIsTheOneThatGoingDownFinds() {
    int found = 0;
    for (int seed = 0; seed < Rounds.of(60); seed++) {
      Random random = new Random(seed);
      RuleIndex index = index(random);
      Certificates certificates = new Certificates(index, LiveAnalysis.STEPS);
      StandingProof[] standings = new StandingProof[RULES];
      for (int handle = 0; handle < RULES; handle++) {
        standings[handle] = certificates.standing(handle);
      }
      Witnesses witnesses = new Witnesses(index, standings);
      IntPredicate test = handle -> handle % 3 != 0;
      for (int position = 0; position < RULES; position++) {
        int handle = index.handleAt(position);
        int expected = RuleIndex.NONE;
        for (int above = position - 1; above >= 0; above--) {
          int other = index.handleAt(above);
          if (index.verdict(other) != index.verdict(handle)
              && standings[other] instanceof StandingProof.Decides decides
              && index.holds(handle, decides.point())
              && test.test(other)) {
            expected = other;
          }
        }
        assertThat(witnesses.firstInside(handle, test))
            .as("seed %d, rule %d", seed, handle)
            .isEqualTo(expected);
        found += expected == RuleIndex.NONE ? 0 : 1;
      }
    }
    assertThat(found).isGreaterThanOrEqualTo(Rounds.least(300));
  }

  @Test
  void ofAPairTheEarlierRuleDecidesThePointAndOverlaps() {
    int shadowed = 0;
    int deciding = 0;
    for (int seed = 0; seed < Rounds.of(60); seed++) {
      RuleIndex index = index(new Random(seed));
      Certificates certificates = new Certificates(index, LiveAnalysis.STEPS);
      for (int handle = 0; handle < RULES; handle++) {
        if (!(certificates.correlated(handle) instanceof PairProof.Found found)) {
          continue;
        }
        int other = found.other();
        assertThat(index.holds(handle, found.point())).isTrue();
        assertThat(index.first(found.point())).isEqualTo(other);
        assertThat(index.position(other)).isLessThan(index.position(handle));
        assertThat(index.verdict(other)).isNotEqualTo(index.verdict(handle));
        assertThat(Regions.holdsAll(index.region(handle), index.region(other))).isFalse();
        assertThat(Regions.holdsAll(index.region(other), index.region(handle))).isFalse();
        shadowed += certificates.standing(handle) instanceof StandingProof.Covered ? 1 : 0;
        deciding += certificates.standing(handle) instanceof StandingProof.Decides ? 1 : 0;
      }
    }
    assertThat(shadowed).isGreaterThanOrEqualTo(Rounds.least(200));
    assertThat(deciding).isGreaterThanOrEqualTo(Rounds.least(500));
  }

  @Test
  void aRuleWithoutPairsIsNowhereDecidedByAnEarlierRuleThatOverlaps() {
    int redundant = 0;
    for (int seed = 0; seed < Rounds.of(60); seed++) {
      RuleIndex index = index(new Random(seed));
      Certificates certificates = new Certificates(index, LiveAnalysis.STEPS);
      for (int handle = 0; handle < RULES; handle++) {
        if (index.region(handle).isEmpty() || !index.rule(handle).enabled()) {
          continue;
        }
        boolean correlated = certificates.correlated(handle) instanceof PairProof.Found;
        boolean generalised = certificates.generalised(handle) instanceof PairProof.Found;
        SplittableRandom random = new SplittableRandom(handle);
        for (int i = 0; i < 20; i++) {
          int[] point = index.space().pick(index.region(handle).getFirst(), random);
          int first = index.first(point);
          if (index.verdict(first) == index.verdict(handle)) {
            continue;
          }
          boolean inside = Regions.holdsAll(index.region(handle), index.region(first));
          boolean outside = Regions.holdsAll(index.region(first), index.region(handle));
          assertThat(correlated || inside || outside).as("seed %d, rule %d", seed, handle).isTrue();
          assertThat(generalised || !inside).as("seed %d, rule %d", seed, handle).isTrue();
        }
        redundant +=
            certificates.standing(handle) instanceof StandingProof.Covered covered
                    && !covered.shadowed()
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
    RuleIndex index =
        new RuleIndex(
            new Rulebase(
                "test", List.of(), List.of(), List.of(), List.of(new Section("s", "S", rules))));
    int target = index.handle("target");
    Questions questions = new Questions(index, LiveAnalysis.STEPS);
    Outcome outcome =
        questions.coveredBefore(
            target,
            index.region(target),
            LeastCoveredPoint.upTo(index, 1)[0],
            new Budget(LiveAnalysis.STEPS));
    assertThat(outcome).isEqualTo(new Outcome.Covered(IntSet.of(index.handle("whole"))));
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
