package dev.ironsieve.bench;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.analysis.Finding;
import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.analysis.Standing;
import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.twin.SlowRules;
import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class RulebaseGeneratorTest {
  @Test
  void theSameSeedGivesTheSameRules() {
    for (Shape shape : Shape.values()) {
      assertThat(new RulebaseGenerator(7, shape).rulebase(50))
          .isEqualTo(new RulebaseGenerator(7, shape).rulebase(50));
    }
  }

  /** Every witness and every cause of some thousand rules, against plain first match. */
  @ParameterizedTest
  @EnumSource(Shape.class)
  void everyWitnessLandsWhereTheAnalysisSays(Shape shape) {
    Rulebase base = new RulebaseGenerator(42, shape).rulebase(1500);
    SlowRules slow = new SlowRules(base);
    LiveAnalysis live = new LiveAnalysis(base, 20_000);
    Map<Class<?>, Integer> standings = new HashMap<>();
    int undecided = 0;
    for (Rule rule : base.rules()) {
      Standing standing = live.standing(rule.id());
      standings.merge(standing.getClass(), 1, Integer::sum);
      switch (standing) {
        case Standing.Decides found ->
            assertThat(slow.decide(found.witness())).as(rule.name()).contains(rule);
        case Standing.Covered found -> {
          assertThat(slow.holds(rule, found.witness())).as(rule.name()).isTrue();
          assertThat(slow.decide(found.witness()).orElseThrow().id())
              .as(rule.name())
              .isEqualTo(found.decidedBy());
          assertThat(live.index().position(live.index().handle(found.causes().getLast())))
              .isLessThan(live.index().position(live.index().handle(rule.id())));
        }
        case Standing.Undecided open ->
            assertThat(shape).as("%s: %s", rule.name(), open).isEqualTo(Shape.ADVERSARIAL);
        case Standing.Empty empty -> {}
        case Standing.PassedOver off -> assertThat(rule.enabled()).isFalse();
      }
      for (Finding finding : live.findings(rule.id())) {
        undecided += finding.kind() == Finding.Kind.UNDECIDED ? 1 : 0;
        if (finding.kind() == Finding.Kind.CORRELATED
            || finding.kind() == Finding.Kind.GENERALISED) {
          assertThat(slow.holds(rule, finding.witness())).as(rule.name()).isTrue();
          assertThat(slow.decide(finding.witness()).orElseThrow().id())
              .as(rule.name())
              .isEqualTo(finding.decidedBy());
        }
      }
    }
    assertThat(standings.get(Standing.Decides.class)).isGreaterThan(base.rules().size() / 4);
    assertThat(standings.get(Standing.Covered.class)).isGreaterThan(3);
    if (shape == Shape.ADVERSARIAL) {
      assertThat(undecided).as("told of the rules of knots").isBetween(10, 200);
    } else {
      assertThat(undecided).isZero();
    }
  }

  /** The whole matcher on a thousand connections, against plain first match. */
  @ParameterizedTest
  @EnumSource(Shape.class)
  void theMatcherDecidesLikePlainFirstMatch(Shape shape) {
    RulebaseGenerator generator = new RulebaseGenerator(5, shape);
    Rulebase base = generator.rulebase(700);
    SlowRules slow = new SlowRules(base);
    Matcher matcher = new Matcher(base);
    for (int i = 0; i < 1000; i++) {
      Connection connection = generator.connection();
      assertThat(matcher.decide(connection))
          .as(connection.toString())
          .isEqualTo(slow.decide(connection));
    }
  }

  @Test
  void connectionsAreOfKnownZones() {
    RulebaseGenerator generator = new RulebaseGenerator(1, Shape.EASY);
    Rulebase base = generator.rulebase(1);
    Connection connection = generator.connection();
    assertThat(base.zones()).extracting("name").contains(connection.from().zone());
  }
}
