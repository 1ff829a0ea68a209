package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.Place;
import dev.ironsieve.core.edit.Touched;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.twin.Rounds;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/**
 * Edits that cut what they cut before, again and again, until there is no room for another class:
 * each rule ends a little below the one before.
 */
class RoomTest {
  private static final int STEPS = 64;
  private static final int EVERY = 5; // steps, after which all is compared

  private static final List<String> PEOPLE =
      IntStream.range(0, STEPS).mapToObj(i -> "person %02d".formatted(i)).toList();

  private final Random random = new Random(1);
  private int upTo;
  private int decided; // points that a rule decides

  private Rule rule(String id) {
    Verdict verdict = random.nextBoolean() ? Verdict.ALLOW : Verdict.DROP;
    Rule rule = Rule.matchingAll(id, "Rule " + id, verdict);
    int last = random.nextInt(4) == 0 ? upTo + random.nextInt(STEPS - upTo) : upTo;
    return rule.matching(
            Criterion.any(),
            upTo("192.0.2.%d-192.0.2.%d", last),
            Criterion.any(),
            random.nextBoolean() ? upTo("2001:db8::%d-2001:db8::%d", last) : Criterion.any(),
            random.nextBoolean()
                ? Criterion.of(ServiceLiteral.parse("tcp/1-" + (last + 1)))
                : Criterion.any())
        .asking(
            random.nextBoolean()
                ? Map.of(
                    Coordinate.PERSON,
                    Criterion.of(PEOPLE.subList(0, last + 1).toArray(String[]::new)))
                : Map.of());
  }

  /** Rules elsewhere; with many of them there are many classes from the start. */
  private static List<Rule> others(int count) {
    return IntStream.range(0, count)
        .mapToObj(
            i ->
                Rule.matchingAll("o" + i, "Other " + i, Verdict.ALLOW)
                    .matching(
                        Criterion.any(),
                        Criterion.of(
                            new AddressItem.Literal(AddressRange.parse("203.0.113." + 2 * i))),
                        Criterion.any(),
                        Criterion.of(
                            new AddressItem.Literal(AddressRange.parse("203.0.113." + 2 * i))),
                        Criterion.any()))
        .toList();
  }

  /** From the first address of a network, and some whole network beside it. */
  private static Criterion<AddressItem> upTo(String range, int last) {
    return Criterion.of(
        new AddressItem.Literal(AddressRange.parse(range.formatted(0, last))),
        new AddressItem.Literal(AddressRange.parse("198.51.100.0/24")),
        new AddressItem.Literal(AddressRange.parse("2001:db8:1::/48")));
  }

  @Test
  void answersStayRightWhenThereIsNoRoomForAClass() {
    int madeRoom = 0;
    for (int round = 0; round < 2 * Rounds.of(8); round++) {
      int others = round % 2 == 0 ? STEPS : 1;
      upTo = STEPS - 1;
      Rulebase base =
          Rulebase.empty("room")
              .withPinned(List.of(new Vocabulary(Coordinate.PERSON, "day 1", PEOPLE, List.of())))
              .withSections(List.of(new Section("s", "All", others(others))));
      LiveAnalysis live = new LiveAnalysis(base);
      for (int step = 0; step < STEPS; step++, upTo--) {
        List<Rule> rules = base.rules();
        String some = rules.get(random.nextInt(Math.max(1, rules.size() - others))).id();
        Edit edit =
            switch (rules.size() < others + 12 ? 0 : random.nextInt(3)) {
              case 0 -> new Edit.InsertRules(List.of(rule("r" + step)), new Place.Above(some));
              case 1 -> new Edit.DeleteRules(List.of(some));
              default -> new Edit.ReplaceRules(List.of(rule(some)));
            };
        Set<String> touched = Touched.ruleIds(edit.touched(base));
        base = edit.apply(base);
        RuleIndex before = live.index();
        live.update(base, touched);
        madeRoom += live.index() == before ? 0 : 1;
        if (step % EVERY == 0) {
          compare("round " + round + " step " + step, live, new LiveAnalysis(base));
        }
      }
    }
    assertThat(madeRoom).isGreaterThan(Rounds.least(8));
    assertThat(decided).isGreaterThan(Rounds.least(900));
  }

  private void compare(String as, LiveAnalysis live, LiveAnalysis anew) {
    RuleIndex index = live.index();
    RuleIndex other = anew.index();
    for (Rule rule : live.rulebase().rules()) {
      assertThat(live.findings(rule.id()).stream().map(Finding::kind).toList())
          .as("%s: %s", as, rule)
          .isEqualTo(anew.findings(rule.id()).stream().map(Finding::kind).toList());
      assertThat(live.standing(rule.id()).getClass())
          .as("%s: %s", as, rule)
          .isEqualTo(anew.standing(rule.id()).getClass());
      assertThat(live.reach(rule.id())).as("%s: %s", as, rule).isEqualTo(anew.reach(rule.id()));
    }
    List<Box> everything = other.space().everything();
    SplittableRandom draws = new SplittableRandom(random.nextLong());
    for (int i = 0; i < STEPS; i++) {
      int[] point = other.space().pick(everything.get(random.nextInt(everything.size())), draws);
      Rule expected = other.ruleAt(point);
      decided += expected == null ? 0 : 1;
      assertThat(index.ruleAt(index.space().point(other.space().connection(point))))
          .as("%s at %s", as, other.space().connection(point))
          .isEqualTo(expected);
    }
  }
}
