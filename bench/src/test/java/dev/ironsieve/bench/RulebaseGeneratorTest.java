package dev.ironsieve.bench;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.analysis.Standing;
import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import java.util.Map;
import org.junit.jupiter.api.Test;

class RulebaseGeneratorTest {
  @Test
  void theSameSeedGivesTheSameRules() {
    assertThat(new RulebaseGenerator(7).rulebase(50))
        .isEqualTo(new RulebaseGenerator(7).rulebase(50));
  }

  /** Every witness of a thousand rules, against plain first match. */
  @Test
  void everyWitnessLandsWhereTheAnalysisSays() {
    Rulebase base = new RulebaseGenerator(42).rulebase(1000);
    Matcher matcher = new Matcher(base);
    Map<String, Standing> standings = new LiveAnalysis(base).standings();
    int decide = 0;
    int covered = 0;
    for (Rule rule : base.rules()) {
      switch (standings.get(rule.id())) {
        case Standing.Decides found -> {
          assertThat(matcher.decide(found.witness())).as(rule.name()).contains(rule);
          decide++;
        }
        case Standing.Covered found -> {
          assertThat(matcher.decide(found.witness()).orElseThrow().id())
              .as(rule.name())
              .isEqualTo(found.decidedBy());
          covered++;
        }
        case Standing.Undecided open -> throw new AssertionError(rule.name() + ": " + open);
        case Standing.Empty empty -> {}
        case Standing.PassedOver off -> {}
      }
    }
    assertThat(decide).isGreaterThan(500);
    assertThat(covered).isGreaterThan(5);
  }

  @Test
  void connectionsAreOfKnownZones() {
    RulebaseGenerator generator = new RulebaseGenerator(1);
    Rulebase base = generator.rulebase(1);
    Connection connection = generator.connection();
    assertThat(base.zones()).extracting("name").contains(connection.from().zone());
  }
}
