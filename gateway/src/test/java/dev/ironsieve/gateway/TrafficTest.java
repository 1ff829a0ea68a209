package dev.ironsieve.gateway;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.formats.syslog.DecisionRecord;
import dev.ironsieve.formats.syslog.HitRecord;
import dev.ironsieve.formats.syslog.SyslogMessage;
import dev.ironsieve.gateway.Decisions.InForce;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Generated connections, what is decided about them, and what is reported. */
class TrafficTest {
  private static final Instant TUESDAY = Instant.parse("2026-12-01T09:30:00Z");

  private final List<SyslogMessage> sent = new ArrayList<>();
  private final Reports reports = new Reports("North", "run1", sent::add, flow -> {});
  private final Decisions decisions = new Decisions(reports, Decisions.MOST_OPEN, sentence -> {});

  private static InForce rules(int revision, String rules) {
    String json =
        """
        {"ironSieve": 1, "name": "n",
         "zones": [{"name": "offices"}, {"name": "internet"}],
         "sections": [{"id": "s", "name": "S", "rules": [%s]}]}
        """
            .formatted(rules);
    Rulebase rulebase =
        ToModel.rulebase(Json.read(json.getBytes(StandardCharsets.UTF_8), RulebaseDocument.class));
    return InForce.of(revision, rulebase);
  }

  private static String rule(String id, String service, String verdict, String log) {
    return """
        {"id": "%s", "name": "%s", "verdict": "%s", "log": "%s",
         "services": {"items": ["%s"]}}
        """
        .formatted(id, id, verdict, log, service);
  }

  private static TrafficPattern web(String... services) {
    return new TrafficPattern(
        1,
        "offices 10.1.0.0/24",
        "internet 203.0.113.0/26",
        List.of(services),
        null,
        null,
        false,
        null,
        null,
        "work",
        100,
        30);
  }

  private static Attempt attempt(String service) {
    return new TrafficGenerator(List.of(web(service)), 3).next(TUESDAY);
  }

  private List<DecisionRecord> records() {
    return sent.stream().map(DecisionRecord::of).flatMap(Optional::stream).toList();
  }

  private List<HitRecord> hits() {
    return sent.stream().map(HitRecord::of).flatMap(Optional::stream).toList();
  }

  @Test
  void theSameSeedMakesTheSameConnections() {
    List<TrafficPattern> demo = TrafficGenerator.demo("demo");
    TrafficGenerator one = new TrafficGenerator(demo, 5);
    TrafficGenerator same = new TrafficGenerator(demo, 5);
    TrafficGenerator other = new TrafficGenerator(demo, 6);
    Set<String> zones = new HashSet<>();
    int different = 0;
    for (int i = 0; i < 500; i++) {
      Attempt made = one.next(TUESDAY);
      assertThat(same.next(TUESDAY)).isEqualTo(made);
      different += other.next(TUESDAY).equals(made) ? 0 : 1;
      zones.add(made.connection().from().zone());
    }
    assertThat(different).isGreaterThan(400);
    assertThat(zones).contains("offices", "terminals", "guest-wifi", "internet");
    assertThat(one.load(TUESDAY))
        .isGreaterThan(3 * one.load(Instant.parse("2026-12-01T02:00:00Z")));
  }

  @Test
  void whatIsNotKeptIsSaid() {
    List<String> said = new ArrayList<>();
    Decisions few = new Decisions(reports, 2, said::add);
    few.use(rules(1, rule("web", "tcp/443", "allow", "end")), TUESDAY);
    for (int i = 0; i < 6; i++) {
      few.decide(attempt("tcp/443"));
    }
    assertThat(few.open()).isEqualTo(2);
    assertThat(said).extracting(sentence -> sentence.split(" ")[0]).containsExactly("1", "2", "4");
    few.endUntil(TUESDAY.plus(Duration.ofHours(1)));
    few.decide(attempt("tcp/443"));
    assertThat(few.open()).as("there is room again").isEqualTo(1);
  }

  @Test
  void recordsAndHitsSayWhatWasDecided() {
    decisions.use(
        rules(
            4,
            rule("web", "tcp/443", "allow", "both")
                + ","
                + rule("old", "tcp/80", "reject", "end")
                + ","
                + rule("quiet", "tcp/22", "allow", "off")),
        TUESDAY);
    for (String service : List.of("tcp/443", "tcp/80", "tcp/22", "udp/53")) {
      decisions.decide(attempt(service));
    }
    assertThat(decisions.open()).isEqualTo(2);
    assertThat(records())
        .extracting(DecisionRecord::rule, DecisionRecord::phase, DecisionRecord::verdict)
        .containsExactly(
            tuple("web", "start", Verdict.ALLOW),
            tuple("old", "start", Verdict.REJECT),
            tuple(null, "start", Verdict.DROP));
    decisions.endUntil(TUESDAY.plus(Duration.ofHours(1)));
    assertThat(decisions.open()).isZero();
    DecisionRecord end = records().getLast();
    assertThat(end.phase()).isEqualTo("end");
    assertThat(end.rule()).isEqualTo("web");
    assertThat(end.bytes()).isEqualTo(attempt("tcp/443").bytes());
    assertThat(end.millis()).isEqualTo(attempt("tcp/443").length().toMillis());

    decisions.reportHits(TUESDAY);
    assertThat(hits())
        .extracting(HitRecord::rule, HitRecord::connections)
        .containsExactlyInAnyOrder(
            tuple("web", 1L), tuple("old", 1L), tuple("quiet", 1L), tuple(null, 1L));
    decisions.reportHits(TUESDAY);
    assertThat(hits()).as("each is reported once").hasSize(4);
    assertThat(sent.stream().map(m -> m.data().getFirst().value("seq").orElseThrow()))
        .containsExactly("1", "2", "3", "4", "5", "6", "7", "8");
  }

  @Test
  void aSwitchJudgesOpenConnectionsAgain() {
    String ssh = rule("ssh", "tcp/22", "allow", "end");
    decisions.use(rules(1, rule("web", "tcp/443", "allow", "end") + "," + ssh), TUESDAY);
    decisions.decide(attempt("tcp/443"));
    decisions.decide(attempt("tcp/22"));
    int ended = decisions.use(rules(2, ssh), TUESDAY.plusSeconds(5));
    assertThat(ended).isEqualTo(1);
    assertThat(decisions.open()).isEqualTo(1);
    DecisionRecord cut = records().getFirst();
    assertThat(cut.rule()).isEqualTo("web");
    assertThat(cut.revision()).as("the one that let it through").isEqualTo(1);
    assertThat(cut.millis()).isEqualTo(5_000);
    assertThat(cut.bytes()).isPositive().isLessThan(attempt("tcp/443").bytes());
  }

  @Test
  void aRuleThatOnlyObservesDecidesNothingAndIsCounted() {
    String observing =
        rule("watch", "tcp", "drop", "start").replace("{\"id\"", "{\"observeOnly\": true, \"id\"");
    String web = rule("web", "tcp/443", "allow", "off");
    String old = rule("old", "tcp/80", "drop", "off");
    decisions.use(rules(1, old + "," + observing + "," + web), TUESDAY);
    for (String service : List.of("tcp/443", "tcp/22", "tcp/80", "udp/53")) {
      decisions.decide(attempt(service));
    }
    assertThat(decisions.open()).isEqualTo(1);
    decisions.reportHits(TUESDAY);
    assertThat(hits())
        .extracting(
            HitRecord::rule, HitRecord::connections, HitRecord::observed, HitRecord::differing)
        .containsExactlyInAnyOrder(
            tuple("web", 1L, 0L, 0L),
            tuple("watch", 0L, 2L, 1L),
            tuple("old", 1L, 0L, 0L),
            tuple(null, 2L, 0L, 0L));
    assertThat(records())
        .extracting(
            DecisionRecord::rule, DecisionRecord::observedRule, DecisionRecord::observedVerdict)
        .containsExactly(
            tuple("web", "watch", Verdict.DROP),
            tuple(null, "watch", Verdict.DROP),
            tuple(null, null, null));
  }
}
