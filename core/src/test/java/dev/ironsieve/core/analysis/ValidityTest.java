package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.model.Breadth;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Validity;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.core.twin.Rounds;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Start and end dates, against trying every port on every day from a day on. */
class ValidityTest {
  private static final LocalDate FIRST = LocalDate.of(2026, 12, 1); // a Tuesday
  private static final int DAYS = 12;
  private static final int PORTS = 3;

  private static Rulebase base(List<Rule> rules) {
    return new Rulebase(
        "Dates", List.of(), List.of(), List.of(), List.of(), List.of(new Section("s", "S", rules)));
  }

  private static Rule random(int number, Random random) {
    int port = 1 + random.nextInt(PORTS);
    int to = Math.min(PORTS, port + random.nextInt(2));
    Verdict verdict = random.nextBoolean() ? Verdict.ALLOW : Verdict.DROP;
    LocalDate start = random.nextInt(3) == 0 ? FIRST.plusDays(random.nextInt(DAYS)) : null;
    LocalDate end =
        random.nextInt(2) == 0
            ? (start == null ? FIRST : start).plusDays(random.nextInt(DAYS / 2))
            : null;
    return TcpRules.rule("r" + number, verdict, port, to)
        .valid(new Validity(start, end))
        .enabled(random.nextInt(8) > 0);
  }

  private static boolean holds(Rule rule, int port, LocalDate day) {
    Validity validity = rule.validity();
    return rule.isInForce()
        && rule.services().items().stream()
            .map(item -> (dev.ironsieve.core.model.ServiceLiteral) item)
            .anyMatch(item -> item.firstDetail() <= port && port <= item.lastDetail())
        && (validity.start() == null || !day.isBefore(validity.start()))
        && (validity.end() == null || !day.isAfter(validity.end()));
  }

  @Test
  void onlyInstantsFromTheDayOnCount() {
    int expired = 0;
    int shadowed = 0;
    for (int seed = 0; seed < Rounds.of(300); seed++) {
      Random random = new Random(seed);
      List<Rule> rules = new ArrayList<>();
      for (int i = 0; i < 6; i++) {
        rules.add(random(i, random));
      }
      LocalDate today = FIRST.plusDays(random.nextInt(DAYS));
      LiveAnalysis live = new LiveAnalysis(base(rules), today);
      for (int r = 0; r < rules.size(); r++) {
        Rule rule = rules.get(r);
        String as = "seed %d, %s from %s on".formatted(seed, rule.id(), today);
        boolean matches = false;
        boolean decides = false;
        boolean otherwise = false;
        for (LocalDate day = today; day.isBefore(FIRST.plusDays(3 * DAYS)); day = day.plusDays(1)) {
          for (int port = 1; port <= PORTS; port++) {
            if (!holds(rule, port, day)) {
              continue;
            }
            int at = port;
            LocalDate on = day;
            Rule first = rules.stream().filter(one -> holds(one, at, on)).findFirst().orElseThrow();
            matches = true;
            decides |= first == rule;
            otherwise |= first.verdict() != rule.verdict();
          }
        }
        Standing standing = live.standing(rule.id());
        boolean over = rule.validity().isOverBefore(today);
        if (!rule.isInForce()) {
          assertThat(standing).as(as).isInstanceOf(Standing.PassedOver.class);
        } else if (!matches) {
          assertThat(standing).as(as).isInstanceOf(Standing.Empty.class);
          assertThat(live.findings(rule.id()).stream().map(Finding::kind))
              .as(as)
              .contains(over ? Finding.Kind.EXPIRED : Finding.Kind.EMPTY)
              .doesNotContain(over ? Finding.Kind.EMPTY : Finding.Kind.EXPIRED);
          expired += over ? 1 : 0;
        } else if (decides) {
          assertThat(standing).as(as).isInstanceOf(Standing.Decides.class);
        } else {
          assertThat(standing).as(as).isInstanceOf(Standing.Covered.class);
          assertThat(((Standing.Covered) standing).kind() == Standing.Kind.SHADOWED)
              .as(as)
              .isEqualTo(otherwise);
          shadowed++;
        }
      }
    }
    assertThat(expired).isGreaterThan(Rounds.least(100));
    assertThat(shadowed).isGreaterThan(Rounds.least(100));
  }

  @Test
  void aDecisionOnAnyDayIsThatOfTheDay() {
    for (int seed = 0; seed < Rounds.of(100); seed++) {
      Random random = new Random(seed);
      List<Rule> rules = new ArrayList<>();
      for (int i = 0; i < 6; i++) {
        rules.add(random(i, random));
      }
      Rulebase base = base(rules);
      Matcher matcher = new Matcher(base);
      boolean dates = base.vocabulary(Coordinate.TIME).isPresent();
      for (int i = 0; dates && i < 20; i++) {
        int port = 1 + random.nextInt(PORTS);
        LocalDate day = FIRST.plusDays(random.nextInt(3 * DAYS) - DAYS);
        String line =
            "from 10.0.0.1 to 192.0.2.1 tcp/%d from port 9 time %sT10:00".formatted(port, day);
        Optional<Rule> expected = rules.stream().filter(rule -> holds(rule, port, day)).findFirst();
        assertThat(matcher.decide(ConnectionLine.parse(line, base)))
            .as("seed %d, %s", seed, line)
            .isEqualTo(expected);
      }
    }
  }

  @Test
  void aRuleThatEndsWithinAMonthEndsSoon() {
    Rule rule = TcpRules.rule("r", Verdict.DROP, 1, 1).valid(new Validity(null, FIRST));
    for (int before : new int[] {0, 1, 30, 31}) {
      LiveAnalysis live = new LiveAnalysis(base(List.of(rule)), FIRST.minusDays(before));
      assertThat(live.findings("r").stream().map(Finding::kind).toList())
          .as("%d days before", before)
          .isEqualTo(before <= 30 ? ofKinds(Finding.Kind.ENDS_SOON) : ofKinds());
    }
    assertThat(kinds(base(List.of(rule)))).isEqualTo(ofKinds());
  }

  /** The default rule drops like the rule, so the rule is redundant besides. */
  private static List<Finding.Kind> ofKinds(Finding.Kind... kinds) {
    List<Finding.Kind> out = new ArrayList<>(List.of(Finding.Kind.REDUNDANT_BELOW));
    out.addAll(List.of(kinds));
    return out;
  }

  @Test
  void narrowingTimeDeviceOrFileKindDoesNotExcuseARuleThatIsTooBroad() {
    Rule any = Rule.matchingAll("r", "r", Verdict.ALLOW);
    Map<Coordinate, String> asked =
        Map.of(
            Coordinate.TIME, "weekdays 06:00-22:00",
            Coordinate.DEVICE, "managed",
            Coordinate.FILE_KIND, "documents",
            Coordinate.SITE, "www.quay.example");
    asked.forEach(
        (coordinate, value) -> {
          Rule rule = any.asking(Map.of(coordinate, Criterion.of(value)));
          boolean broad = coordinate != Coordinate.SITE;
          assertThat(kinds(base(List.of(rule))).contains(Finding.Kind.TOO_BROAD))
              .as(value)
              .isEqualTo(broad);
        });
    Breadth ends = new Breadth(Set.of(Breadth.Dimension.SERVICES), 256);
    for (String network : List.of("10.0.0.0/24", "10.0.0.0/25")) {
      Rule rule =
          any.matching(
              any.fromZones(),
              Criterion.of(dev.ironsieve.core.model.AddressItem.parse(network)),
              any.toZones(),
              any.toAddresses(),
              any.services());
      Rulebase set = base(List.of(rule));
      set = set.withGatewaySettings(set.gatewaySettings().withBreadth(ends), set.sections());
      assertThat(kinds(set).contains(Finding.Kind.TOO_BROAD))
          .as(network)
          .isEqualTo(network.endsWith("/24"));
    }
  }

  private static List<Finding.Kind> kinds(Rulebase base) {
    return new LiveAnalysis(base).findings("r").stream().map(Finding::kind).toList();
  }

  @Test
  void anUnfinishedRuleDecidesNothingUntilItHasACriterion() {
    Rule fresh = Rule.matchingAll("r", "r", Verdict.DROP).unfinished(true);
    Rule below = TcpRules.rule("below", Verdict.ALLOW, 1, 1);
    LiveAnalysis live = new LiveAnalysis(base(List.of(fresh, below)));
    assertThat(live.standing("r")).isInstanceOf(Standing.PassedOver.class);
    assertThat(live.standing("below")).isInstanceOf(Standing.Decides.class);
    Rule narrowed = fresh.asking(Map.of(Coordinate.DEVICE, Criterion.of("managed")));
    assertThat(narrowed.unfinished()).isFalse();
    live.update(base(List.of(narrowed, below)), Set.of("r"));
    assertThat(live.standing("r")).isInstanceOf(Standing.Decides.class);
    Rule forAny = fresh.unfinished(false);
    live.update(base(List.of(forAny, below)), Set.of("r"));
    assertThat(live.standing("below")).isInstanceOf(Standing.Covered.class);
  }
}
