package dev.ironsieve.core.matcher;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SlowRules;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class WitnessShortenerTest {
  /** Against plain first match of every connection that agrees with what is left. */
  @Test
  void leavesOutOnlyWhatTheProofDoesNotHangOn() {
    List<Connection> all = SmallWorld.connectionsWithTerms();
    int shorter = 0;
    for (int seed = 0; seed < Rounds.of(200); seed++) {
      Rulebase base = new SmallWorld(seed, true).rulebase(8);
      SlowRules slow = new SlowRules(base);
      RuleIndex index = new RuleIndex(base);
      Random random = new Random(seed);
      for (Rule rule : base.rules()) {
        Connection witness = all.get(random.nextInt(all.size()));
        if (!rule.enabled() || !slow.holds(rule, witness)) {
          continue;
        }
        Connection brief = WitnessShortener.of(witness, index.handle(rule.id()), index);
        for (Connection whole : all) {
          if (SmallWorld.agrees(whole, brief)) {
            assertThat(slow.holds(rule, whole)).as("seed %d, %s", seed, rule).isTrue();
            assertThat(slow.decide(whole)).as("seed %d", seed).isEqualTo(slow.decide(witness));
          }
        }
        assertThat(witness.terms()).containsAllEntriesOf(brief.terms());
        assertThat(brief.from()).isEqualTo(witness.from());
        shorter += witness.terms().size() - brief.terms().size();
      }
    }
    assertThat(shorter).isGreaterThan(Rounds.least(60));
  }

  /** Of two rulebases, both decide all that agrees with what is left as they decide the whole. */
  @Test
  void leavesOutOnlyWhatTwoDecisionsDoNotHangOn() {
    int shorter = 0;
    for (int seed = 0; seed < Rounds.of(60); seed++) {
      SmallWorld world = new SmallWorld(seed, true);
      Rulebase before = world.rulebase(8);
      Rulebase after =
          new Edit.DeleteRules(List.of(before.rules().get(seed % before.rules().size()).id()))
              .apply(before);
      SlowRules was = new SlowRules(before);
      SlowRules is = new SlowRules(after);
      Difference difference = Differences.between(before, after, Aspect.VERDICT);
      for (Difference.ChangedBox part : difference.parts()) {
        Connection brief =
            WitnessShortener.deciding(part.witness(), difference.before(), difference.after());
        for (Connection whole : SmallWorld.connectionsWithTerms()) {
          if (SmallWorld.agrees(whole, brief)) {
            assertThat(was.decide(whole)).isEqualTo(was.decide(part.witness()));
            assertThat(is.decide(whole)).isEqualTo(is.decide(part.witness()));
          }
        }
        shorter += part.witness().terms().size() - brief.terms().size();
      }
    }
    assertThat(shorter).isGreaterThan(Rounds.least(20));
  }
}
