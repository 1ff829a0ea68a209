package dev.ironsieve.core.twin;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.edit.RandomEdits;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What is not tried again after an edit is what trying everything again tells. */
class TriedTest {
  @Test
  void afterEditsOfRulesAndObjectsItIsAsTriedAnew() {
    List<Connection> points = SmallWorld.connectionsWithTerms();
    int others = 0;
    for (int seed = 0; seed < Rounds.of(20); seed++) {
      RandomEdits edits = new RandomEdits(seed, true);
      Rulebase base = new SmallWorld(seed, true).rulebase(8);
      Tried tried = new Tried(base, points);
      for (int step = 0; step < 12; step++) {
        Rulebase next = edits.next(base).apply(base);
        others += new SlowRules(next).holdsAsIn(new SlowRules(base)) ? 0 : 1;
        tried = tried.on(next);
        base = next;
        Tried anew = new Tried(base, points);
        for (int i = 0; i < base.rules().size(); i++) {
          assertThat(tried.held(i))
              .as("seed %d step %d rule %d", seed, step, i)
              .isEqualTo(anew.held(i));
        }
        assertThat(tried.verdicts()).isEqualTo(anew.verdicts());
      }
    }
    assertThat(others).as("edits of objects").isGreaterThanOrEqualTo(Rounds.least(10));
  }
}
