package dev.ironsieve.core.matcher;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.Place;
import dev.ironsieve.core.matcher.Trace.CriterionName;
import dev.ironsieve.core.matcher.VerdictChange.Kind;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SlowRules;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Every change is made, and gives the other effect. */
class VerdictChangeTest {
  private static Rule without(Rule rule, CriterionName part) {
    return switch (part) {
      case FROM_ZONE ->
          rule.matching(
              Criterion.any(),
              rule.fromAddresses(),
              rule.toZones(),
              rule.toAddresses(),
              rule.services());
      case FROM_ADDRESS ->
          rule.matching(
              rule.fromZones(),
              Criterion.any(),
              rule.toZones(),
              rule.toAddresses(),
              rule.services());
      case TO_ZONE ->
          rule.matching(
              rule.fromZones(),
              rule.fromAddresses(),
              Criterion.any(),
              rule.toAddresses(),
              rule.services());
      case TO_ADDRESS ->
          rule.matching(
              rule.fromZones(),
              rule.fromAddresses(),
              rule.toZones(),
              Criterion.any(),
              rule.services());
      case SERVICE ->
          rule.matching(
              rule.fromZones(),
              rule.fromAddresses(),
              rule.toZones(),
              rule.toAddresses(),
              Criterion.any());
      default -> throw new IllegalArgumentException(part + "");
    };
  }

  private static Edit edit(VerdictChange change, Rule decided) {
    return switch (change.kind()) {
      case WIDENED -> new Edit.ReplaceRules(List.of(without(change.rule(), change.criterion())));
      case ENABLED -> new Edit.ReplaceRules(List.of(change.rule().enabled(true)));
      case MOVED_ABOVE ->
          new Edit.MoveRules(List.of(change.rule().id()), new Place.Above(decided.id()));
      case REMOVED -> new Edit.DeleteRules(List.of(decided.id()));
    };
  }

  @Test
  void everyChangeGivesTheOtherEffect() {
    List<Connection> all = SmallWorld.connections();
    Map<Kind, Integer> seen = new EnumMap<>(Kind.class);
    for (int seed = 0; seed < Rounds.of(150); seed++) {
      Random random = new Random(seed);
      Rulebase base = new SmallWorld(seed).rulebase(10);
      Matcher matcher = new Matcher(base);
      for (int i = 0; i < 10; i++) {
        Connection connection = all.get(random.nextInt(all.size()));
        Trace trace = matcher.trace(connection);
        for (VerdictChange change : matcher.changes(connection, trace, 3)) {
          Rulebase after = edit(change, trace.decided()).apply(base);
          Rule decides = new SlowRules(after).decide(connection).orElse(null);
          String as = "seed " + seed + ", " + connection + ", " + change;
          assertThat(decides == null ? null : decides.id())
              .as(as)
              .isEqualTo(change.decides() == null ? null : change.decides().id());
          assertThat(DefaultRule.verdict(decides).letsThrough())
              .as(as)
              .isNotEqualTo(DefaultRule.verdict(trace.decided()).letsThrough());
          assertThat(change.verdict()).isEqualTo(DefaultRule.verdict(decides));
          seen.merge(change.kind(), 1, Integer::sum);
        }
      }
    }
    assertThat(seen).containsOnlyKeys(Kind.values());
  }
}
