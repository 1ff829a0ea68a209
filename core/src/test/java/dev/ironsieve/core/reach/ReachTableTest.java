package dev.ironsieve.core.reach;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Space;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SlowRules;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Tables and matrices against trying every point. */
class ReachTableTest {
  private static final List<Connection> ALL = SmallWorld.connections();

  @Test
  void everyConnectionOfTheQuestionIsInOneLineOfTheRuleThatDecidesIt() {
    int parts = 0;
    int excepting = 0;
    for (int seed = 0; seed < Rounds.of(150); seed++) {
      SmallWorld world = new SmallWorld(seed);
      Rulebase base = world.rulebase(8 + seed % 12);
      Rule question = world.rule("question").enabled(true);
      SlowRules slow = new SlowRules(base);
      RuleIndex index = new RuleIndex(base);
      ReachTable table = ReachTable.ask(index, question, ReachTable.STEPS);
      assertThat(table.complete()).isTrue();
      for (Connection connection : ALL) {
        String as = "seed " + seed + ", " + question + ", " + connection;
        int[] point = index.space().point(connection);
        List<Rule> deciding = new ArrayList<>();
        for (ReachTable.Line line : table.lines()) {
          boolean taken = line.except().stream().anyMatch(rule -> slow.holds(rule, connection));
          if (line.box().contains(point) && !taken) {
            deciding.add(line.rule());
          }
        }
        List<Rule> right = new ArrayList<>();
        if (slow.holds(question, connection)) {
          right.add(slow.decide(connection).orElse(null));
        }
        assertThat(deciding).as(as).isEqualTo(right);
      }
      for (ReachTable.Line line : table.lines()) {
        Rule decided = slow.decide(index.space().connection(line.point())).orElse(null);
        assertThat(decided).isEqualTo(line.rule());
        parts += line.except().isEmpty() ? 1 : 0;
        excepting += line.except().isEmpty() ? 0 : 1;
      }
      assertThat(table.lines()).doesNotHaveDuplicates();
    }
    assertThat(parts).isGreaterThan(Rounds.of(500));
    assertThat(excepting).isPositive();
  }

  @Test
  void tellsWhenTheBudgetRanOut() {
    SmallWorld world = new SmallWorld(3);
    Rulebase base = world.rulebase(20);
    ReachTable table = ReachTable.ask(new RuleIndex(base), world.rule("question").enabled(true), 0);
    assertThat(table.complete()).isFalse();
  }

  @Test
  void theMatrixCountsTheServicesThatSomebodyCanUse() {
    int none = 0;
    int some = 0;
    for (int seed = 0; seed < Rounds.of(80); seed++) {
      Rulebase base = new SmallWorld(seed).rulebase(2 + seed % 6);
      SlowRules slow = new SlowRules(base);
      RuleIndex index = new RuleIndex(base);
      List<String> zones = index.resolution().zoneNames().subList(0, 2);
      ZoneMatrix matrix = ZoneMatrix.of(index, zones);
      assertThat(matrix.cells()).hasSize(4);
      for (ZoneMatrix.Cell cell : matrix.cells()) {
        long open =
            ALL.stream()
                .filter(c -> cell.from().equals(c.from().zone()) && cell.to().equals(c.to().zone()))
                .filter(c -> slow.decide(c).map(r -> r.verdict().letsThrough()).orElse(false))
                .map(c -> index.space().rank(Space.SERVICE, index.space().point(c)[Space.SERVICE]))
                .distinct()
                .count();
        String as = "seed " + seed + ", " + cell;
        assertThat(cell.exact()).isTrue();
        assertThat(cell.of()).isEqualTo(index.space().classes(Space.SERVICE));
        assertThat((long) cell.open()).as(as).isGreaterThanOrEqualTo(open);
        assertThat(cell.open() == 0).as(as).isEqualTo(open == 0);
        assertThat(cell.rules().isEmpty()).as(as).isEqualTo(open == 0);
        none += open == 0 ? 1 : 0;
        some += open > 0 && open < cell.of() ? 1 : 0;
      }
    }
    assertThat(none).isPositive();
    assertThat(some).isPositive();
  }
}
