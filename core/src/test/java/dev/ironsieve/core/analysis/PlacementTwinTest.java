package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SlowRules;
import dev.ironsieve.core.twin.SmallWorld;
import dev.ironsieve.core.twin.Tried;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Every place of every rule, against moving it there and trying every point. */
class PlacementTwinTest {
  private static final List<Connection> ALL = SmallWorld.connections();

  @Test
  void tellsOfEveryPlaceWhatMovingTheRuleThereWouldDo() {
    int quiet = 0;
    int loud = 0;
    for (int seed = 0; seed < Rounds.of(120); seed++) {
      Rulebase base = new SmallWorld(seed).rulebase(7);
      LiveAnalysis live = new LiveAnalysis(base);
      Tried tried = new Tried(base, ALL);
      Verdict[] before = tried.verdicts();
      for (Rule rule : base.rules()) {
        Placement placement = live.placement(rule.id());
        assertThat(placement.places()).isEqualTo(base.rules().size());
        for (int place = 0; place < placement.places(); place++) {
          String as = "seed %d, %s to %d".formatted(seed, rule, place);
          Rulebase moved = moved(base, rule, place);
          Verdict[] after = tried.on(moved).verdicts();
          Set<Set<Verdict>> changes = new HashSet<>();
          for (int p = 0; p < before.length; p++) {
            if (before[p] != after[p]) {
              changes.add(Set.of(before[p], after[p]));
            }
          }
          assertThat(placement.quiet(place)).as(as).isEqualTo(changes.isEmpty());
          Set<Set<Verdict>> told = new HashSet<>();
          for (Placement.BlockingRule blocking : placement.passed(place)) {
            told.add(Set.of(rule.verdict(), blocking.verdict()));
            assertThat(verdict(base, blocking.witness()))
                .as(as)
                .isNotEqualTo(verdict(moved, blocking.witness()));
          }
          assertThat(told).as(as).isEqualTo(changes);
          quiet += changes.isEmpty() ? 1 : 0;
          loud += changes.isEmpty() ? 0 : 1;
        }
      }
    }
    assertThat(quiet).isGreaterThan(Rounds.of(500));
    assertThat(loud).isGreaterThan(Rounds.of(500));
  }

  private static Rulebase moved(Rulebase base, Rule rule, int place) {
    List<Rule> rules = new ArrayList<>(base.rules());
    rules.remove(rule);
    rules.add(place, rule);
    return base.withSections(List.of(new Section("s", "S", rules)));
  }

  private static Verdict verdict(Rulebase base, Connection connection) {
    return new SlowRules(base).decide(connection).map(Rule::verdict).orElse(Verdict.DROP);
  }
}
