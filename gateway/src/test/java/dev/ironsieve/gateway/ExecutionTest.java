package dev.ironsieve.gateway;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.formats.syslog.DecisionRecord;
import dev.ironsieve.formats.syslog.SyslogMessage;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** What a gateway does besides its verdicts: stages, rate plans and holds. */
class ExecutionTest {
  private static final Instant NOON = Instant.parse("2026-12-01T12:00:00Z");
  private static final long SECOND_AT_1_MBIT = 125_000; // bytes
  private static final Address DESK = Address.parse("10.1.0.9");

  private final List<SyslogMessage> sent = new ArrayList<>();
  private final Decisions decisions =
      new Decisions(
          new Reports("North", "run1", sent::add, flow -> {}), Decisions.MOST_OPEN, sentence -> {});

  private static Rulebase rulebase(String settings, String rules) {
    String json =
        """
        {"ironSieve": 1, "name": "n", "zones": [{"name": "offices"}, {"name": "internet"}],
         "vocabularies": [
           {"coordinate": "person", "edition": "1", "values": ["Maya Lind", "Ben Holm"]},
           {"coordinate": "application", "edition": "1",
            "values": ["Lanternreel: view", "Lanternreel: upload", "Gullwire"],
            "applications": [
              {"name": "Lanternreel", "uses": ["Lanternreel: view", "Lanternreel: upload"],
               "ports": ["tcp/443"], "hosts": ["*.lanternreel.example"],
               "openedOnly": ["Lanternreel: upload"]},
              {"name": "Gullwire", "uses": ["Gullwire"], "ports": ["tcp/443"]}]}],
         %s
         "sections": [{"id": "s", "name": "S", "rules": [%s]}]}
        """
            .formatted(settings, rules);
    return ToModel.rulebase(
        Json.read(json.getBytes(StandardCharsets.UTF_8), RulebaseDocument.class));
  }

  private static Rulebase planned(String line, String plan) {
    return rulebase(
        "\"lineCapacity\": \"%s\", \"ratePlans\": [%s],".formatted(line, plan),
        """
        {"id": "a", "name": "A", "verdict": "allow", "ratePlan": "P",
         "services": {"items": ["tcp/80"]}},
        {"id": "b", "name": "B", "verdict": "allow", "ratePlan": "P",
         "services": {"items": ["tcp/81"]}},
        {"id": "c", "name": "C", "verdict": "allow"}
        """);
  }

  /** After how many seconds a connection ends that begins at noon and could be over at once. */
  private static double seconds(RateLimits limits, Rule rule, Address source, double megabits) {
    Instant end =
        limits.end(rule, source, NOON, Duration.ZERO, (long) (megabits * SECOND_AT_1_MBIT));
    return Duration.between(NOON, end).toMillis() / 1000.0;
  }

  @Test
  void aSharedCeilingLimitsAllConnectionsTogether() {
    Rulebase rulebase =
        planned(
            "1 Gbit/s", "{\"name\": \"P\", \"ceiling\": \"1 Mbit/s\", \"counted\": \"all rules\"}");
    RateLimits limits = new RateLimits(rulebase);
    Rule a = rulebase.rules().get(0);
    Rule b = rulebase.rules().get(1);
    assertThat(seconds(limits, a, DESK, 1)).isZero(); // the burst of a second
    assertThat(seconds(limits, b, DESK, 1)).isEqualTo(1);
    assertThat(seconds(limits, a, DESK, 3)).isEqualTo(4);
  }

  @Test
  void aCeilingMayBeOfEachRuleOrEachSource() {
    Rulebase each =
        planned(
            "1 Gbit/s", "{\"name\": \"P\", \"ceiling\": \"1 Mbit/s\", \"counted\": \"each rule\"}");
    RateLimits limits = new RateLimits(each);
    assertThat(seconds(limits, each.rules().get(0), DESK, 2)).isEqualTo(1);
    assertThat(seconds(limits, each.rules().get(1), DESK, 2)).isEqualTo(1);
    Rulebase sources =
        planned(
            "1 Gbit/s",
            "{\"name\": \"P\", \"ceiling\": \"1 Mbit/s\", \"counted\": \"each source\","
                + " \"mostAtOnce\": 4}");
    RateLimits ofSources = new RateLimits(sources);
    Rule rule = sources.rules().get(0);
    assertThat(seconds(ofSources, rule, DESK, 2)).isEqualTo(1);
    assertThat(seconds(ofSources, rule, Address.parse("10.1.0.10"), 1)).isZero();
    assertThat(seconds(ofSources, rule, DESK, 1)).isEqualTo(2);
  }

  @Test
  void aFloorGoesOnWhileTheLineIsFull() {
    Rulebase rulebase =
        planned(
            "2 Mbit/s", "{\"name\": \"P\", \"floor\": \"1 Mbit/s\", \"counted\": \"all rules\"}");
    RateLimits limits = new RateLimits(rulebase);
    Rule other = rulebase.rules().get(2);
    assertThat(seconds(limits, other, DESK, 11)).isEqualTo(10); // of the 1 Mbit/s that is left
    assertThat(seconds(limits, rulebase.rules().get(0), DESK, 2)).isEqualTo(1); // of its floor
    assertThat(seconds(limits, other, DESK, 1)).isEqualTo(11);
  }

  private Attempt attempt(String person, String application) {
    return new Attempt(
        new Connection(
            new Endpoint("offices", DESK),
            new Endpoint("internet", Address.parse("203.0.113.7")),
            6,
            443,
            50_000,
            Map.of(Coordinate.PERSON, person, Coordinate.APPLICATION, application)),
        NOON,
        Duration.ofSeconds(30),
        100_000);
  }

  private DecisionRecord last() {
    return sent.stream()
        .map(DecisionRecord::of)
        .flatMap(Optional::stream)
        .reduce((before, after) -> after)
        .orElseThrow();
  }

  private void use(String rules) {
    decisions.use(Decisions.InForce.of(1, rulebase("", rules)), NOON);
  }

  @Test
  void anApplicationIsRefusedAfterItsHandshake() {
    use(
        """
        {"id": "no", "name": "No", "verdict": "drop", "log": "start",
         "terms": {"application": {"items": ["Gullwire"]}}},
        {"id": "all", "name": "All", "verdict": "allow"}
        """);
    decisions.decide(attempt("Maya Lind", "Gullwire"));
    assertThat(last().stage()).isEqualTo("handshake");
    assertThat(last().verdict()).isEqualTo(Verdict.DROP);
    assertThat(last().packets()).isGreaterThan(1); // passed until it was recognised
    assertThat(last().bytes()).isLessThan(100_000);
  }

  @Test
  void aFeatureThatShowsOnlyWhenOpenedIsNotRefusedWhileSealed() {
    String rules =
        """
        {"id": "no", "name": "No", "verdict": "drop", "log": "start", "opening": "%s",
         "terms": {"application": {"items": ["Lanternreel: upload"]}}},
        {"id": "all", "name": "All", "verdict": "allow", "log": "start", "opening": "%s"}
        """;
    use(rules.formatted("sealed", "sealed"));
    decisions.decide(attempt("Maya Lind", "Lanternreel: upload"));
    assertThat(last().verdict()).isEqualTo(Verdict.ALLOW);
    assertThat(last().rule()).isEqualTo("all");
    use(rules.formatted("opened", "opened"));
    decisions.decide(attempt("Maya Lind", "Lanternreel: upload"));
    assertThat(last().verdict()).isEqualTo(Verdict.DROP);
    assertThat(last().stage()).isEqualTo("content");
  }

  @Test
  void aRuleWithAHoldRefusesEverythingOfThePersonForATime() {
    String rules =
        """
        {"id": "no", "name": "No", "verdict": "drop", "log": "start", "hold": 10,
         "terms": {"application": {"items": ["Gullwire"]}}},
        {"id": "all", "name": "All", "verdict": "allow", "log": "start"}
        """;
    use(rules);
    decisions.decide(attempt("Maya Lind", "Gullwire"));
    decisions.decide(attempt("Ben Holm", "Lanternreel: view"));
    assertThat(last().verdict()).isEqualTo(Verdict.ALLOW);
    decisions.decide(attempt("Maya Lind", "Lanternreel: view"));
    assertThat(last().verdict()).isEqualTo(Verdict.DROP);
    assertThat(last().rule()).isEqualTo("no");
    assertThat(last().stage()).isEqualTo("hold");
    Attempt later = attempt("Maya Lind", "Lanternreel: view");
    decisions.decide(
        new Attempt(
            later.connection(), NOON.plus(Duration.ofMinutes(10)), later.length(), later.bytes()));
    assertThat(last().verdict()).isEqualTo(Verdict.ALLOW);
    decisions.decide(attempt("Maya Lind", "Gullwire"));
    use(rules.replace("\"hold\": 10,", "")); // another revision ends the hold
    decisions.decide(attempt("Maya Lind", "Lanternreel: view"));
    assertThat(last().verdict()).isEqualTo(Verdict.ALLOW);
  }

  @Test
  void aLimitedConnectionStaysOpenLonger() {
    decisions.use(
        Decisions.InForce.of(
            1,
            rulebase(
                """
                "ratePlans": [{"name": "P", "ceiling": "8 kbit/s", "counted": "all rules"}],
                """,
                """
                {"id": "all", "name": "All", "verdict": "allow", "log": "end", "ratePlan": "P"}
                """)),
        NOON);
    decisions.decide(attempt("Maya Lind", "Gullwire")); // 100,000 bytes at 1,000 a second
    decisions.endUntil(NOON.plusSeconds(98));
    assertThat(sent).isEmpty();
    decisions.endUntil(NOON.plusSeconds(99));
    assertThat(last().millis()).isEqualTo(99_000);
    assertThat(last().bytes()).isEqualTo(100_000);
  }
}
