package dev.ironsieve.core.matcher;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.matcher.PossibleDecisions.Decision;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SlowRules;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** The rules that can decide an incomplete connection, against trying all its completions. */
class PossibleDecisionsTest {
  @Test
  void areThoseOfAllConnectionsThatAgree() {
    int several = 0;
    int certain = 0;
    for (int seed = 0; seed < Rounds.of(60); seed++) {
      boolean terms = seed % 2 == 0;
      Rulebase base = new SmallWorld(seed, terms).rulebase(8);
      SlowRules slow = new SlowRules(base);
      Matcher matcher = new Matcher(base);
      List<Connection> all = terms ? SmallWorld.connectionsWithTerms() : SmallWorld.connections();
      Random random = new Random(seed);
      for (int i = 0; i < 12; i++) {
        Connection said = SmallWorld.leavingUnsaid(all.get(random.nextInt(all.size())), random);
        String as = "seed %d, %s".formatted(seed, said);
        Set<Optional<Rule>> expected = new LinkedHashSet<>();
        all.stream()
            .filter(whole -> SmallWorld.agrees(whole, said))
            .forEach(whole -> expected.add(slow.decide(whole)));
        List<Optional<Rule>> inOrder = new ArrayList<>(expected);
        inOrder.sort(
            Comparator.comparingInt(
                rule -> rule.map(base.rules()::indexOf).orElse(Integer.MAX_VALUE)));
        PossibleDecisions found = matcher.possible(said, Matcher.STEPS);
        assertThat(found.complete()).as(as).isTrue();
        assertThat(found.decisions().stream().map(d -> Optional.ofNullable(d.rule())))
            .as(as)
            .containsExactlyElementsOf(inOrder);
        for (Decision decision : found.decisions()) {
          assertThat(SmallWorld.agrees(decision.witness(), said)).as(as).isTrue();
          assertThat(matcher.decide(decision.witness()))
              .as("%s: %s", as, decision.witness())
              .isEqualTo(Optional.ofNullable(decision.rule()));
        }
        long verdicts =
            inOrder.stream().map(r -> r.map(Rule::verdict).orElse(Verdict.DROP)).distinct().count();
        assertThat(found.certain().isPresent()).as(as).isEqualTo(verdicts == 1);
        several += inOrder.size() > 1 ? 1 : 0;
        certain += verdicts == 1 ? 1 : 0;
      }
    }
    assertThat(several).isGreaterThan(Rounds.least(200));
    assertThat(certain).isGreaterThan(Rounds.least(100));
  }

  @Test
  void aBudgetThatRunsOutIsNeverCertain() {
    for (int seed = 0; seed < Rounds.of(40); seed++) {
      Rulebase base = new SmallWorld(seed, true).rulebase(8);
      Matcher matcher = new Matcher(base);
      Connection said = ConnectionLine.parse("tcp/1", base);
      PossibleDecisions full = matcher.possible(said, Matcher.STEPS);
      PossibleDecisions hasty = matcher.possible(said, 2);
      assertThat(full.decisions().stream().map(Decision::rule))
          .containsAll(hasty.decisions().stream().map(Decision::rule).toList());
      if (hasty.decisions().size() < full.decisions().size()) {
        assertThat(hasty.complete()).isFalse();
        assertThat(hasty.certain()).isEmpty();
      }
    }
  }

  private static Rule asking(String id, Verdict verdict, Coordinate coordinate, String value) {
    return Rule.matchingAll(id, id, verdict).asking(Map.of(coordinate, Criterion.of(value)));
  }

  @Test
  void managedUnmanagedAndUnknownDevicesAreThreeRulesThatAllDecide() {
    Rulebase base =
        new Rulebase(
            "Devices",
            List.of(),
            List.of(),
            List.of(),
            List.of(),
            List.of(
                new Section(
                    "s",
                    "S",
                    List.of(
                        asking("managed", Verdict.ALLOW, Coordinate.DEVICE, "managed"),
                        asking("unmanaged", Verdict.CAUTION, Coordinate.DEVICE, "unmanaged"),
                        Rule.matchingAll("rest", "rest", Verdict.DROP)))));
    Matcher matcher = new Matcher(base);
    PossibleDecisions found =
        matcher.possible(ConnectionLine.parse("tcp/443", base), Matcher.STEPS);
    assertThat(found.decisions().stream().map(d -> d.rule().id()))
        .containsExactly("managed", "unmanaged", "rest");
    assertThat(found.decisions().getFirst().dependsOn())
        .containsExactly(Trace.CriterionName.DEVICE);
    assertThat(found.decisions().getLast().dependsOn()).isEmpty();
    assertThat(found.decisions().getLast().witness().terms())
        .containsEntry(Coordinate.DEVICE, "unknown device");
    assertThat(matcher.decide(ConnectionLine.parse("tcp/443", base)).orElseThrow().id())
        .isEqualTo("rest");
    assertThat(matcher.trace(ConnectionLine.parse("tcp/443", base)).decided().id())
        .isEqualTo("rest");
  }

  @Test
  void aRuleCanAskForNobodyKnownByAnyOfTheirNames() {
    for (Map.Entry<Coordinate, String> asked :
        Map.of(Coordinate.DEVICE, "unknown device", Coordinate.SITE, "no host").entrySet()) {
      Rulebase base =
          new Rulebase(
              "Unknown",
              List.of(),
              List.of(),
              List.of(),
              List.of(),
              List.of(
                  new Section(
                      "s",
                      "S",
                      List.of(asking("asks", Verdict.ALLOW, asked.getKey(), asked.getValue())))));
      Matcher matcher = new Matcher(base);
      assertThat(matcher.decide(ConnectionLine.parse("tcp/443", base))).isPresent();
      PossibleDecisions found =
          matcher.possible(ConnectionLine.parse("tcp/443", base), Matcher.STEPS);
      assertThat(found.decisions()).hasSize(2);
      assertThat(found.certain()).isEmpty();
    }
  }
}
