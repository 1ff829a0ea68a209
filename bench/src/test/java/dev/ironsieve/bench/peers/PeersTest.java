package dev.ironsieve.bench.peers;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.bench.RulebaseGenerator;
import dev.ironsieve.bench.Shape;
import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.analysis.Standing;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.twin.SmallWorld;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** An SMT solver and a decision diagram say of each rule what the analysis says. */
class PeersTest {
  private static int compare(String as, Rulebase base) {
    LiveAnalysis live = new LiveAnalysis(base);
    int covered = 0;
    try (Peer solver = new SolverPeer(base);
        DiagramPeer diagram = new DiagramPeer(base, 2_000_000)) {
      for (Rule rule : base.rules()) {
        Standing standing = live.standing(rule.id());
        Peer.Answer expected =
            standing instanceof Standing.Decides ? Peer.Answer.DECIDES : Peer.Answer.DOES_NOT;
        assertThat(standing).as(as).isNotInstanceOf(Standing.Undecided.class);
        assertThat(solver.next()).as("%s, %s, solver", as, rule).isEqualTo(expected);
        assertThat(diagram.next()).as("%s, %s, diagram", as, rule).isEqualTo(expected);
        covered += standing instanceof Standing.Covered ? 1 : 0;
      }
    }
    return covered;
  }

  @ParameterizedTest
  @EnumSource(Shape.class)
  void agreeOnGeneratedRulebases(Shape shape) {
    int covered = 0;
    for (int seed = 0; seed < 3; seed++) {
      covered += compare("seed " + seed, new RulebaseGenerator(seed, shape).rulebase(60));
    }
    assertThat(covered).isPositive();
  }

  @Test
  void agreeOnSmallWorlds() {
    int covered = 0;
    for (int seed = 0; seed < 120; seed++) {
      covered += compare("seed " + seed, new SmallWorld(seed, seed % 2 == 0).rulebase(9));
    }
    assertThat(covered).isGreaterThan(50);
  }
}
