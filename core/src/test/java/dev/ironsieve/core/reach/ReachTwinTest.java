package dev.ironsieve.core.reach;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Space;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SlowRules;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Reach questions against trying every point. */
class ReachTwinTest {
  private static final List<Connection> ALL = SmallWorld.connections();

  @Test
  void tellsEveryDeciderWithEveryValueForWhichItDecides() {
    int deciders = 0;
    for (int seed = 0; seed < Rounds.of(250); seed++) {
      SmallWorld world = new SmallWorld(seed);
      Rulebase base = world.rulebase(8);
      Rule question = world.rule("question").enabled(true);
      SlowRules slow = new SlowRules(base);
      int axis = seed % 3 == 0 ? Space.SERVICE : seed % 3 == 1 ? Space.FROM : Space.TO;
      RuleIndex index = new RuleIndex(base);
      ReachAnswer answer = ReachQuestion.ask(index, question, axis, ReachQuestion.STEPS);
      String as = "seed " + seed + ", " + question;
      assertThat(answer.complete()).as(as).isTrue();
      List<Connection> asked = ALL.stream().filter(c -> slow.holds(question, c)).toList();
      List<Rule> expected = new ArrayList<>(base.rules());
      expected.add(null);
      expected.removeIf(rule -> asked.stream().noneMatch(c -> decides(slow, c, rule)));
      assertThat(answer.deciders())
          .as(as)
          .extracting(ReachAnswer.Decider::rule)
          .isEqualTo(expected);
      for (ReachAnswer.Decider decider : answer.deciders()) {
        deciders++;
        assertThat(decides(slow, decider.witness(), decider.rule())).as(as).isTrue();
        assertThat(slow.holds(question, decider.witness())).as(as).isTrue();
        Set<Integer> right = new HashSet<>();
        asked.stream()
            .filter(c -> decides(slow, c, decider.rule()))
            .forEach(c -> right.add(index.space().point(c)[axis]));
        Set<Integer> told = new HashSet<>();
        ALL.stream()
            .map(c -> index.space().point(c)[axis])
            .filter(decider.codes()::contains)
            .forEach(told::add);
        assertThat(told).as(as).isEqualTo(right);
      }
    }
    assertThat(deciders).isGreaterThan(Rounds.of(500));
  }

  @Test
  void theClosingRuleDropsWhatIsLeft() {
    Rule narrow =
        Rule.matchingAll("web", "web", Verdict.REJECT)
            .matching(
                Criterion.of("north"),
                Criterion.any(),
                Criterion.any(),
                Criterion.any(),
                Criterion.of(ServiceItem.parse("tcp/1")));
    Rulebase base =
        new SmallWorld(1).rulebase(1).withSections(List.of(new Section("s", "S", List.of(narrow))));
    Rule question =
        Rule.matchingAll("question", "question", Verdict.ALLOW)
            .matching(
                Criterion.of("north"),
                Criterion.any(),
                Criterion.any(),
                Criterion.any(),
                Criterion.of(ServiceItem.parse("tcp/1-2")));
    ReachAnswer answer =
        ReachQuestion.ask(new RuleIndex(base), question, Space.SERVICE, ReachQuestion.STEPS);
    assertThat(answer.deciders())
        .extracting(ReachAnswer.Decider::verdict)
        .containsExactly(Verdict.REJECT, Verdict.DROP);
    ReachAnswer.Decider closing = answer.deciders().getLast();
    assertThat(closing.rule()).isNull();
    Connection other = answer.deciders().getFirst().witness();
    assertThat(closing.showing(other).witness()).isEqualTo(other);
    assertThat(closing.showing(other).codes()).isEqualTo(closing.codes());
    assertThat(ReachQuestion.ask(new RuleIndex(base), question, Space.SERVICE, 0).complete())
        .isFalse();
  }

  private static boolean decides(SlowRules slow, Connection c, Rule rule) {
    return Objects.equals(slow.decide(c).orElse(null), rule);
  }
}
