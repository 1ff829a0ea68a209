package dev.ironsieve.core.reach;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SlowRules;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.List;
import java.util.Random;
import java.util.function.Predicate;
import org.junit.jupiter.api.Test;

/** The rules that match an address or a service, against trying every point. */
class MatchingRulesTest {
  private static final List<Connection> ALL = SmallWorld.connections();

  @Test
  void areThoseThatHoldForOneOfTheConnections() {
    int listed = 0;
    int left = 0;
    for (int seed = 0; seed < Rounds.of(150); seed++) {
      Rulebase base = new SmallWorld(seed).rulebase(8);
      RuleIndex index = new RuleIndex(base);
      Connection some = ALL.get(new Random(seed).nextInt(ALL.size()));
      AddressItem address = AddressItem.parse(some.from().address().toString());
      List<String> withAddress = MatchingRules.withAddress(index, address);
      assertThat(withAddress)
          .as("seed %d, %s", seed, some)
          .isEqualTo(
              holding(
                  base,
                  c ->
                      c.from().address().equals(some.from().address())
                          || c.to().address().equals(some.from().address())));
      String service = some.protocol() == 6 ? "tcp/" + some.detail() : "udp";
      List<String> withService = MatchingRules.withService(index, ServiceItem.parse(service));
      assertThat(withService)
          .as("seed %d, %s", seed, service)
          .isEqualTo(
              holding(
                  base,
                  c ->
                      some.protocol() == 6
                          ? c.protocol() == 6 && c.detail() == some.detail()
                          : c.protocol() == 17));
      listed += withAddress.size() + withService.size();
      left += 2 * base.rules().size() - withAddress.size() - withService.size();
    }
    assertThat(listed).isGreaterThan(Rounds.of(150));
    assertThat(left).isGreaterThan(Rounds.of(150));
  }

  private static List<String> holding(Rulebase base, Predicate<Connection> wanted) {
    SlowRules slow = new SlowRules(base);
    return base.rules().stream()
        .filter(rule -> ALL.stream().anyMatch(c -> wanted.test(c) && slow.holds(rule, c)))
        .map(Rule::id)
        .toList();
  }
}
