package dev.ironsieve.core.matcher;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SlowRules;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** The stages against trying everything that a connection may still turn out to be. */
class StageTest {
  private static final List<String> APPLICATIONS = List.of("chat: post", "chat: view", "mail");

  private static Connection with(Connection connection, String application) {
    Map<Coordinate, String> terms = new EnumMap<>(Coordinate.class);
    terms.putAll(connection.terms());
    terms.remove(Coordinate.APPLICATION);
    if (application != null) {
      terms.put(Coordinate.APPLICATION, application);
    }
    return connection.saying(terms);
  }

  /** The same, where chat does not carry mail. */
  private static Rulebase withoutCarrying(Rulebase base) {
    return base.withPinned(base.pinned().stream().map(StageTest::withoutCarrying).toList());
  }

  private static Vocabulary withoutCarrying(Vocabulary v) {
    List<ApplicationFact> facts =
        v.applications().stream()
            .map(
                f ->
                    new ApplicationFact(
                        f.name(),
                        f.uses(),
                        f.ports(),
                        f.hosts(),
                        f.needs(),
                        List.of(),
                        f.openedOnly()))
            .toList();
    return new Vocabulary(v.coordinate(), v.edition(), v.values(), v.terms(), facts);
  }

  private static List<Connection> mayTurnOutToBe(
      Connection connection, Stage stage, boolean carrying) {
    String application = connection.terms().get(Coordinate.APPLICATION);
    List<Connection> out = new ArrayList<>();
    switch (stage) {
      case FIRST_PACKET -> {
        out.add(with(connection, null));
        APPLICATIONS.forEach(any -> out.add(with(connection, any)));
      }
      case HANDSHAKE -> {
        // Where chat carries mail, either may be the other until the content is seen.
        if (application == null || (!carrying && application.equals("mail"))) {
          out.add(connection);
        } else {
          APPLICATIONS.stream()
              .filter(any -> carrying || any.startsWith("chat"))
              .forEach(any -> out.add(with(connection, any)));
        }
      }
      case CONTENT -> out.add(connection);
    }
    return out;
  }

  /** What is unknown is in nothing narrower than everything. */
  private static boolean holds(SlowRules slow, Rule rule, Connection point) {
    boolean known = point.terms().containsKey(Coordinate.APPLICATION);
    boolean everything =
        rule.term(Coordinate.APPLICATION).items().isEmpty()
            && APPLICATIONS.stream().allMatch(any -> slow.holds(rule, with(point, any)));
    return known ? slow.holds(rule, point) : everything;
  }

  private static void check(
      String as, SlowRules slow, List<Rule> rules, Stage.Answer answer, Connection connection) {
    boolean carrying =
        slow.rulebase().vocabulary(Coordinate.APPLICATION).orElseThrow().applications().stream()
            .anyMatch(fact -> !fact.carries().isEmpty());
    List<Connection> maybe = mayTurnOutToBe(connection, answer.stage(), carrying);
    List<Rule> open = new ArrayList<>();
    Rule decides = null;
    for (Rule rule : rules) {
      long held = maybe.stream().filter(point -> holds(slow, rule, point)).count();
      if (rule.enabled() && held == maybe.size()) {
        decides = rule;
        break;
      }
      if (rule.enabled() && held > 0) {
        open.add(rule);
      }
    }
    assertThat(answer.decides()).as(as).isEqualTo(decides);
    assertThat(answer.open()).as(as).isEqualTo(open);
  }

  @Test
  void areWhatTryingEveryOutcomeTells() {
    int settledEarly = 0;
    int provisional = 0;
    for (int seed = 0; seed < Rounds.of(60); seed++) {
      Rulebase world = new SmallWorld(seed, true).rulebase(8);
      Rulebase base = seed % 2 == 0 ? world : withoutCarrying(world);
      Matcher matcher = new Matcher(base);
      SlowRules slow = new SlowRules(base);
      List<Connection> all = SmallWorld.connectionsWithTerms();
      Random random = new Random(seed);
      for (int i = 0; i < 80; i++) {
        Connection point = all.get(random.nextInt(all.size()));
        Connection connection = i % 8 == 0 ? with(point, null) : point;
        List<Stage.Answer> stages = matcher.stages(connection);
        for (Stage.Answer answer : stages) {
          String as = "seed %d, %s, %s".formatted(seed, answer.stage(), connection);
          check(as, slow, base.rules(), answer, connection);
        }
        Stage.Answer last = stages.getLast();
        assertThat(last.settled()).isTrue();
        assertThat(last.verdict())
            .as("seed %d, %s", seed, connection)
            .satisfiesAnyOf(
                // What is refused before it is recognised need not be refused by the same verdict.
                verdict -> assertThat(last.open()).isNotEmpty(),
                verdict ->
                    assertThat(verdict)
                        .isEqualTo(
                            matcher.decide(connection).map(Rule::verdict).orElse(Verdict.DROP)));
        settledEarly += stages.size() < 3 ? 1 : 0;
        provisional += stages.getFirst().settled() ? 0 : 1;
      }
    }
    assertThat(settledEarly).isGreaterThan(Rounds.least(500));
    assertThat(provisional).isGreaterThan(Rounds.least(500));
  }

  private static Rule chat(String id, Verdict verdict, String application) {
    return Rule.matchingAll(id, id, verdict)
        .asking(Map.of(Coordinate.APPLICATION, new Criterion<>(List.of(application), List.of())));
  }

  @Test
  void aConnectionIsLetThroughUntilItIsRecognisedIfSomeOpenRuleAllows() {
    Rulebase world = new SmallWorld(1, true).rulebase(2);
    Rulebase base =
        withoutCarrying(world)
            .withSections(
                List.of(
                    new Section(
                        "s",
                        "S",
                        List.of(
                            chat("post", Verdict.REJECT, "chat: post"),
                            chat("chat", Verdict.ALLOW, "chat")))));
    Connection post = with(SmallWorld.connectionsWithTerms().getFirst(), "chat: post");
    List<Stage.Answer> stages = new Matcher(base).stages(post);
    assertThat(stages)
        .extracting(Stage.Answer::verdict)
        .containsExactly(Verdict.ALLOW, Verdict.ALLOW, Verdict.REJECT);
    assertThat(stages).extracting(Stage.Answer::settled).containsExactly(false, false, true);
    assertThat(stages.get(1).decides().id()).isEqualTo("chat");
  }
}
