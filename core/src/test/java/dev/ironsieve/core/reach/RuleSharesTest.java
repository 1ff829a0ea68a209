package dev.ironsieve.core.reach;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;

class RuleSharesTest {
  private static RuleShares of(Rule... rules) {
    Rulebase base =
        new SmallWorld(1).rulebase(1).withSections(List.of(new Section("s", "S", List.of(rules))));
    return RuleShares.of(new RuleIndex(base), 4000);
  }

  private static Rule from(String id, String zone) {
    Rule any = Rule.matchingAll(id, id, Verdict.ALLOW);
    return any.matching(
        Criterion.of(zone), any.fromAddresses(), any.toZones(), any.toAddresses(), any.services());
  }

  @Test
  void everySampleIsDecidedOnce() {
    RuleShares shares = of(from("a", "north"), from("b", "south"));
    assertThat(Arrays.stream(shares.decided()).sum()).isEqualTo(shares.samples()).isEqualTo(4000);
    assertThat(shares.decided()).hasSize(3);
    assertThat(shares.decided()[0]).isBetween(500, 3000);
    assertThat(shares)
        .usingRecursiveComparison()
        .isEqualTo(of(from("a", "north"), from("b", "south")));
  }

  @Test
  void whatIsAboveDecidesAll() {
    assertThat(of(Rule.matchingAll("all", "all", Verdict.DROP), from("b", "south")).decided())
        .containsExactly(4000, 0, 0);
    assertThat(of(from("a", "north").enabled(false)).decided()).containsExactly(0, 4000);
  }
}
