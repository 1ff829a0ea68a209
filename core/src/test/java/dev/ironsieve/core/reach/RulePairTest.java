package dev.ironsieve.core.reach;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SlowRules;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Two rules side by side, against trying every point. */
class RulePairTest {
  private static final List<Connection> ALL = SmallWorld.connections();

  @Test
  void everyConnectionIsInTheOnePartWhereItBelongs() {
    int shared = 0;
    int alone = 0;
    for (int seed = 0; seed < Rounds.of(200); seed++) {
      Rulebase base = new SmallWorld(seed).rulebase(4);
      RuleIndex index = new RuleIndex(base);
      SlowRules slow = new SlowRules(base);
      Rule first = base.rules().get(0);
      Rule second = base.rules().get(1);
      RulePair pair = RulePair.of(index, index.handle(first.id()), index.handle(second.id()));
      assertThat(pair.complete()).isTrue();
      for (Connection connection : ALL) {
        int[] point = index.space().point(connection);
        boolean one = slow.holds(first, connection);
        boolean other = slow.holds(second, connection);
        String as = "seed %d, %s".formatted(seed, connection);
        assertThat(holding(pair.shared(), point)).as(as).isEqualTo(one && other ? 1 : 0);
        assertThat(holding(pair.firstAlone(), point)).as(as).isEqualTo(one && !other ? 1 : 0);
        assertThat(holding(pair.secondAlone(), point)).as(as).isEqualTo(other && !one ? 1 : 0);
      }
      shared += pair.shared().size();
      alone += pair.firstAlone().size() + pair.secondAlone().size();
    }
    assertThat(shared).isGreaterThan(Rounds.of(50));
    assertThat(alone).isGreaterThan(Rounds.of(200));
  }

  /** How many boxes hold a point: they are disjoint, so at most one. */
  private static long holding(List<Box> boxes, int[] point) {
    return boxes.stream().filter(box -> box.contains(point)).count();
  }
}
