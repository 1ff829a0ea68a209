package dev.ironsieve.core.difference;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.edit.RandomEdits;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SlowRules;
import dev.ironsieve.core.twin.SmallWorld;
import dev.ironsieve.core.twin.Tried;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.junit.jupiter.api.Test;

/** The difference against trying every point. */
class DifferenceTwinTest {

  private static void check(String as, Rulebase before, Rulebase after, List<Connection> points) {
    Tried old = new Tried(before, points);
    Tried now = old.on(after);
    for (Aspect aspect : Aspect.values()) {
      Difference difference = Differences.between(before, after, aspect);
      // The same where no box, and where one box, may be taken apart.
      RuleIndex there = difference.before();
      RuleIndex here = difference.after();
      List<Difference> all =
          List.of(
              difference,
              Differences.between(new RuleIndex(before), before, after, aspect, Differences.STEPS),
              Differences.between(there, here, aspect, Differences.STEPS, 0),
              Differences.between(there, here, aspect, Differences.STEPS, 1));
      for (Difference told : all) {
        checkPoints(as, told, old, now, points);
        for (Difference.ChangedBox part : told.parts()) {
          int[] witness = told.after().space().point(part.witness());
          assertThat(told.contains(part, witness)).as("%s, %s", as, part).isTrue();
          assertThat(new SlowRules(before).decide(part.witness()).orElse(null))
              .as("%s, %s", as, part)
              .isEqualTo(part.before());
          assertThat(new SlowRules(after).decide(part.witness()).orElse(null))
              .as("%s, %s", as, part)
              .isEqualTo(part.after());
        }
      }
    }
  }

  private static void checkPoints(
      String as, Difference told, Tried old, Tried now, List<Connection> points) {
    Aspect aspect = told.aspect();
    assertThat(told.complete()).as(as).isTrue();
    for (int p = 0; p < points.size(); p++) {
      int[] point = told.after().space().point(points.get(p));
      Object was = aspect.of(rule(old, p));
      Object is = aspect.of(rule(now, p));
      List<Difference.ChangedBox> parts =
          told.parts().stream().filter(part -> told.contains(part, point)).toList();
      assertThat(parts)
          .as("%s, %s at %s", as, aspect, points.get(p))
          .hasSize(was.equals(is) ? 0 : 1)
          .allMatch(part -> aspect.of(part.before()).equals(was))
          .allMatch(part -> aspect.of(part.after()).equals(is));
    }
  }

  private static Rule rule(Tried tried, int point) {
    int decides = tried.decides(point, -1);
    return decides < 0 ? null : tried.rules().get(decides);
  }

  @Test
  void isWhatTryingEveryPointTellsAfterAFewEdits() {
    for (int seed = 0; seed < Rounds.of(150); seed++) {
      boolean withTerms = seed % 3 == 0;
      RandomEdits edits = new RandomEdits(seed, withTerms);
      Rulebase before = new SmallWorld(seed, withTerms).rulebase(8);
      Rulebase after = before;
      for (int i = 0; i <= seed % 4; i++) {
        after = edits.next(after).apply(after);
      }
      check(
          "seed " + seed,
          before,
          after,
          withTerms ? SmallWorld.connectionsWithTerms() : SmallWorld.connections());
    }
  }

  @Test
  void isEmptyBetweenARulebaseAndItself() {
    for (int seed = 0; seed < Rounds.of(100); seed++) {
      Rulebase base = new SmallWorld(seed).rulebase(9);
      assertThat(Differences.between(base, base, Aspect.RULE).isEmpty()).isTrue();
      assertThat(Differences.between(base, base.named("other"), Aspect.VERDICT, 0).isEmpty())
          .isTrue();
    }
  }

  @Test
  void anotherOrderIsComparedRuleByRule() {
    for (int seed = 0; seed < Rounds.of(60); seed++) {
      Rulebase before = new SmallWorld(seed).rulebase(8);
      List<Rule> shuffled = new ArrayList<>(before.rules());
      Collections.rotate(shuffled, 1 + seed % 3);
      Rulebase after = before.withSections(List.of(new Section("s", "S", shuffled)));
      check("seed " + seed, before, after, SmallWorld.connections());
    }
  }

  @Test
  void saysSoWhenTheBudgetRunsOut() {
    Rulebase before = new SmallWorld(3).rulebase(9);
    Rulebase after = before.withSections(List.of(new Section("a", "None", List.of())));
    assertThat(Differences.between(before, after, Aspect.RULE, 0).complete()).isFalse();
  }
}
