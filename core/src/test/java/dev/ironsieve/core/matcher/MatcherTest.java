package dev.ironsieve.core.matcher;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.matcher.Trace.CriterionName;
import dev.ironsieve.core.matcher.Trace.Passed;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SlowRules;
import dev.ironsieve.core.twin.SmallWorld;
import dev.ironsieve.core.twin.WideWorld;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

class MatcherTest {
  private static final Set<CriterionName> ENDS_AND_SERVICE =
      Set.of(
          CriterionName.FROM_ZONE,
          CriterionName.FROM_ADDRESS,
          CriterionName.TO_ZONE,
          CriterionName.TO_ADDRESS,
          CriterionName.SERVICE);

  @Test
  void agreesWithTheSlowTwinOnEveryPointOfSmallWorlds() {
    List<Connection> all = SmallWorld.connections();
    for (int seed = 0; seed < Rounds.of(300); seed++) {
      Rulebase base = new SmallWorld(seed).rulebase(8);
      SlowRules slow = new SlowRules(base);
      Matcher matcher = new Matcher(base);
      int[] positions = matcher.positions(all);
      assertThat(positions).hasSameSizeAs(all);
      for (int i = 0; i < positions.length; i++) {
        Connection connection = all.get(i);
        Optional<Rule> decided =
            positions[i] < 0 ? Optional.empty() : Optional.of(base.rules().get(positions[i]));
        assertThat(decided).isEqualTo(slow.decide(connection));
        assertThat(matcher.decide(connection))
            .as("seed %d, %s", seed, connection)
            .isEqualTo(slow.decide(connection));
        Trace trace = matcher.trace(connection);
        assertThat(trace.decided()).isEqualTo(slow.decide(connection).orElse(null));
        for (Passed passed : trace.passed()) {
          assertThat(passed.turnedAwayBy().isEmpty()).isEqualTo(!passed.rule().enabled());
          assertThat(passed.rule().enabled() && slow.holds(passed.rule(), connection)).isFalse();
        }
      }
    }
  }

  private static final Rule NARROW =
      Rule.matchingAll("r1", "narrow", Verdict.ALLOW)
          .matching(
              Criterion.of("inside"),
              Criterion.of(AddressItem.parse("10.0.0.0/8")),
              Criterion.of("outside"),
              Criterion.of(AddressItem.parse("192.0.2.1")),
              Criterion.of(ServiceItem.parse("tcp/443")));

  private static Matcher matcher(Rule... rules) {
    return new Matcher(
        new Rulebase(
            "test",
            List.of(new Zone("inside", List.of(), ""), new Zone("outside", List.of(), "")),
            List.of(),
            List.of(),
            List.of(new Section("s", "Rules", List.of(rules)))));
  }

  private static Connection connection(String from, String fromZone, String to, int port) {
    return new Connection(
        new Endpoint(fromZone, Address.parse(from)),
        new Endpoint("outside", Address.parse(to)),
        6,
        port,
        50000);
  }

  @Test
  void theTraceNamesEveryCriterionThatTurnsTheConnectionAway() {
    Trace trace = matcher(NARROW).trace(connection("172.16.0.1", "outside", "192.0.2.1", 80));
    assertThat(trace.decided()).isNull();
    assertThat(trace.passed())
        .containsExactly(
            new Passed(
                NARROW,
                Set.of(
                    CriterionName.FROM_ZONE, CriterionName.FROM_ADDRESS, CriterionName.SERVICE)));
  }

  @Test
  void whatIsUnknownIsInNothingNarrowerThanEverything() {
    Connection nothingKnown = new Connection(Endpoint.NOT_KNOWN, Endpoint.NOT_KNOWN, -1, -1, -1);
    Trace trace = matcher(NARROW).trace(nothingKnown);
    assertThat(trace.passed()).containsExactly(new Passed(NARROW, ENDS_AND_SERVICE));
    Rule all = Rule.matchingAll("r2", "all", Verdict.DROP);
    assertThat(matcher(NARROW, all).decide(nothingKnown)).contains(all);
    Rule tcp =
        all.matching(
            Criterion.any(),
            Criterion.any(),
            Criterion.any(),
            Criterion.any(),
            Criterion.of(ServiceItem.parse("tcp")));
    Connection somePort = new Connection(Endpoint.NOT_KNOWN, Endpoint.NOT_KNOWN, 6, -1, -1);
    assertThat(matcher(tcp).decide(somePort)).contains(tcp);
    assertThat(matcher(tcp).decide(nothingKnown)).isEmpty();
  }

  @Test
  void disabledRulesArePassedOver() {
    Rule off = Rule.matchingAll("r0", "off", Verdict.DROP).enabled(false);
    Trace trace = matcher(off, NARROW).trace(connection("10.1.1.1", "inside", "192.0.2.1", 443));
    assertThat(trace.decided()).isEqualTo(NARROW);
    assertThat(trace.passed()).containsExactly(new Passed(off, Set.of()));
  }

  /** The index and the trace are two ways to the same answer, whatever is not known. */
  @Test
  void theIndexAgreesWithTheTraceWhereTermsAreUnknown() {
    for (int seed = 0; seed < Rounds.of(60); seed++) {
      Rulebase base = new SmallWorld(seed, true).rulebase(30);
      Matcher matcher = new Matcher(base);
      int at = 0;
      for (Connection c : SmallWorld.connectionsWithTerms()) {
        Map<Coordinate, String> known = new EnumMap<>(c.terms());
        if (at++ % 3 != 0) {
          known.remove(at % 3 == 1 ? Coordinate.PERSON : Coordinate.APPLICATION);
        }
        Connection some =
            new Connection(c.from(), c.to(), c.protocol(), c.detail(), c.sourcePort(), known);
        assertThat(matcher.decide(some).orElse(null))
            .as("seed %d, %s", seed, some)
            .isEqualTo(matcher.trace(some).decided());
      }
    }
  }

  @Test
  void agreesWithTheSlowTwinOnConcreteHostsDevicesFilesAndTimes() {
    for (int seed = 0; seed < Rounds.of(100); seed++) {
      WideWorld world = new WideWorld(seed);
      Rulebase base = world.rulebase(8);
      SlowRules slow = new SlowRules(base);
      Matcher matcher = new Matcher(base);
      for (Connection concrete : world.points()) {
        Optional<Rule> found = matcher.decide(matcher.named(concrete));
        if (!found.equals(slow.decide(concrete))) {
          assertThat(found).as("seed %d, %s", seed, concrete).isEqualTo(slow.decide(concrete));
        }
      }
    }
  }
}
