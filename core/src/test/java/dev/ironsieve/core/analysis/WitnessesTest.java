package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.analysis.Certificate.StandingProof;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import java.util.function.IntPredicate;
import org.junit.jupiter.api.Test;

/** The first rule whose point lies in another, held to looking at all rules one after the other. */
class WitnessesTest {
  private static final int MANY = 5000; // enough for cells to be many

  private final SplittableRandom random = new SplittableRandom(7);

  private Criterion<AddressItem> addresses() {
    if (random.nextInt(4) == 0) {
      return Criterion.any();
    }
    int first = random.nextInt(1 << 16);
    int last = Math.min((1 << 16) - 1, first + random.nextInt(1 << 14));
    String text =
        "%d.%d.0.0-%d.%d.255.255".formatted(first >> 8, first & 255, last >> 8, last & 255);
    return Criterion.of(AddressItem.parse(text));
  }

  private Criterion<ServiceItem> services() {
    if (random.nextInt(6) == 0) {
      return Criterion.any();
    }
    List<ServiceItem> items = new ArrayList<>();
    for (int i = random.nextInt(3); i >= 0; i--) {
      int port = 1 + random.nextInt(2000);
      items.add(ServiceItem.parse("tcp/" + port + "-" + (port + random.nextInt(300))));
    }
    return new Criterion<>(items, List.of());
  }

  private RuleIndex index(int rules) {
    List<Rule> all = new ArrayList<>();
    for (int i = 0; i < rules; i++) {
      Verdict verdict = random.nextBoolean() ? Verdict.ALLOW : Verdict.DROP;
      Rule any = Rule.matchingAll("r" + i, "r" + i, verdict);
      all.add(any.matching(any.fromZones(), addresses(), any.toZones(), addresses(), services()));
    }
    return new RuleIndex(
        new Rulebase("b", List.of(), List.of(), List.of(), List.of(new Section("s", "S", all))));
  }

  /** A point of each rule but some, as if the rule decided it. */
  private StandingProof[] standings(RuleIndex index) {
    StandingProof[] out = new StandingProof[index.handles()];
    for (int handle = 0; handle < out.length; handle++) {
      out[handle] =
          random.nextInt(10) == 0
              ? new StandingProof.Empty()
              : new StandingProof.Decides(
                  index.space().pick(index.region(handle).getFirst(), random));
    }
    return out;
  }

  private static int firstInside(
      RuleIndex index, StandingProof[] standings, int handle, IntPredicate test) {
    for (int i = 0; i < index.position(handle); i++) {
      int other = index.handleAt(i);
      if (index.verdict(other) != index.verdict(handle)
          && standings[other] instanceof StandingProof.Decides decides
          && index.holds(handle, decides.point())
          && test.test(other)) {
        return other;
      }
    }
    return RuleIndex.NONE;
  }

  /** How many rules were found. */
  private int check(int rules, int asked) {
    RuleIndex index = index(rules);
    StandingProof[] standings = standings(index);
    Witnesses witnesses = new Witnesses(index, standings);
    int found = 0;
    for (int i = 0; i < asked; i++) {
      int handle = random.nextInt(rules);
      int part = 1 + random.nextInt(3);
      IntPredicate test = other -> other % part == 0;
      int first = firstInside(index, standings, handle, test);
      assertThat(witnesses.firstInside(handle, test)).as("%d in turn", i).isEqualTo(first);
      found += first == RuleIndex.NONE ? 0 : 1;
    }
    return found;
  }

  @Test
  void amongManyRules() {
    assertThat(check(MANY, 2000)).isBetween(200, 1800);
  }

  @Test
  void amongFewRules() {
    int found = 0;
    for (int i = 0; i < Rounds.of(200); i++) {
      found += check(60, 60);
    }
    assertThat(found).isBetween(200, 11_000);
  }
}
