package dev.ironsieve.core.matcher;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SlowRules;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.ArrayList;
import java.util.Comparator;
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
      Connection connection, Stage.Answer answer, boolean carrying) {
    String application = connection.terms().get(Coordinate.APPLICATION);
    boolean all =
        switch (answer.stage()) {
          case FIRST_PACKET -> true;
          // Where chat carries mail, either may be the other until the content is seen.
          case HANDSHAKE -> application == null || carrying;
          case CONTENT -> application == null || answer.sealed() && carrying;
        };
    // The features of chat show only in opened connections.
    boolean alike =
        !all
            && (answer.stage() == Stage.HANDSHAKE || answer.sealed())
            && application.startsWith("chat");
    return APPLICATIONS.stream()
        .filter(any -> all || any.equals(application) || alike && any.startsWith("chat"))
        .map(any -> with(connection, any))
        .toList();
  }

  /** Against the first match of every connection that this one may still turn out to be. */
  private static void check(
      String as, SlowRules slow, List<Rule> rules, Stage.Answer answer, Connection connection) {
    boolean carrying =
        slow.rulebase().vocabulary(Coordinate.APPLICATION).orElseThrow().applications().stream()
            .anyMatch(fact -> !fact.carries().isEmpty());
    List<Rule> deciding = new ArrayList<>();
    boolean byDefault = false;
    for (Connection point : mayTurnOutToBe(connection, answer, carrying)) {
      Rule rule = slow.decide(point).orElse(null);
      byDefault |= rule == null;
      if (rule != null && !deciding.contains(rule)) {
        deciding.add(rule);
      }
    }
    deciding.sort(Comparator.comparingInt(rules::indexOf));
    if (byDefault) {
      deciding.add(null);
    }
    assertThat(answer.decides()).as(as).isEqualTo(deciding.getLast());
    assertThat(answer.open()).as(as).isEqualTo(deciding.subList(0, deciding.size() - 1));
  }

  @Test
  void areWhatTryingEveryOutcomeTells() {
    int settledEarly = 0;
    int provisional = 0;
    int mayStayHidden = 0;
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
        boolean whole = connection.terms().containsKey(Coordinate.APPLICATION);
        assertThat(last.settled() || !whole || last.sealed()).isTrue();
        boolean hidden = matcher.mayStayHidden(connection);
        assertThat(last.settled() || !whole || hidden).as("seed %d", seed).isTrue();
        mayStayHidden += hidden ? 1 : 0;
        if (last.settled() && whole) {
          assertThat(last.verdict())
              .as("seed %d, %s", seed, connection)
              .isEqualTo(matcher.decide(connection).map(Rule::verdict).orElse(Verdict.DROP));
        }
        settledEarly += stages.size() < 3 ? 1 : 0;
        provisional += stages.getFirst().settled() ? 0 : 1;
      }
    }
    assertThat(settledEarly).isGreaterThan(Rounds.least(500));
    assertThat(provisional).isGreaterThan(Rounds.least(500));
    assertThat(mayStayHidden).isBetween(Rounds.least(100), 4_000);
  }

  private static Rule chat(String id, Verdict verdict, String application) {
    return Rule.matchingAll(id, id, verdict)
        .asking(Map.of(Coordinate.APPLICATION, new Criterion<>(List.of(application), List.of())));
  }

  private static List<Stage.Answer> stagesOfPost(Opening opening) {
    Rulebase world = new SmallWorld(1, true).rulebase(2);
    Rulebase base =
        withoutCarrying(world)
            .withSections(
                List.of(
                    new Section(
                        "s",
                        "S",
                        List.of(
                            chat("post", Verdict.REJECT, "chat: post").leaving(opening),
                            chat("chat", Verdict.ALLOW, "chat")))));
    Connection post = with(SmallWorld.connectionsWithTerms().getFirst(), "chat: post");
    List<Stage.Answer> stages = new Matcher(base).stages(post);
    assertThat(stages.get(1).decides().id()).isEqualTo("chat");
    return stages;
  }

  @Test
  void aConnectionIsLetThroughUntilItIsRecognisedIfSomeOpenRuleAllows() {
    List<Stage.Answer> stages = stagesOfPost(Opening.OPENED);
    assertThat(stages)
        .extracting(Stage.Answer::verdict)
        .containsExactly(Verdict.ALLOW, Verdict.ALLOW, Verdict.REJECT);
    assertThat(stages).extracting(Stage.Answer::settled).containsExactly(false, false, true);
    assertThat(stages).extracting(Stage.Answer::sealed).containsOnly(false);
  }

  @Test
  void theContentOfASealedConnectionIsNeverKnown() {
    List<Stage.Answer> stages = stagesOfPost(Opening.SEALED);
    assertThat(stages).extracting(Stage.Answer::settled).containsExactly(false, false, false);
    assertThat(stages).extracting(Stage.Answer::sealed).containsExactly(false, false, true);
    assertThat(stages.getLast().open()).extracting(Rule::id).containsExactly("post");
  }

  @Test
  void whatIsRefusedBeforeItIsRecognisedIsRefusedAsItIsInTheEnd() {
    Rulebase base =
        withoutCarrying(new SmallWorld(1, true).rulebase(2))
            .withSections(
                List.of(new Section("s", "S", List.of(chat("chat", Verdict.REJECT, "chat")))));
    for (String application : APPLICATIONS) {
      Connection connection = with(SmallWorld.connectionsWithTerms().getFirst(), application);
      Matcher matcher = new Matcher(base);
      Verdict decided = matcher.decide(connection).map(Rule::verdict).orElse(Verdict.DROP);
      assertThat(matcher.stages(connection))
          .as(application)
          .extracting(Stage.Answer::verdict)
          .containsExactly(decided);
    }
  }

  /** The path of a site shows only in connections that are opened or plain. */
  @Test
  void aPathIsKnownWhereTheConnectionIsOpenedOrPlain() {
    Rule form =
        Rule.matchingAll("form", "form", Verdict.DROP)
            .asking(Map.of(Coordinate.SITE, Criterion.of("www.quay.example/forms")));
    for (Opening opening : Opening.values()) {
      Rulebase base =
          new Rulebase(
              "Paths",
              List.of(),
              List.of(),
              List.of(),
              List.of(),
              List.of(
                  new Section(
                      "s",
                      "S",
                      List.of(
                          form.leaving(opening), Rule.matchingAll("all", "all", Verdict.ALLOW)))));
      for (String port : List.of("tcp/443", "tcp/80")) {
        Connection to =
            ConnectionLine.parse(
                "from 10.0.0.1 to 192.0.2.1 " + port + " site www.quay.example/forms", base);
        Stage.Answer last = new Matcher(base).stages(to).getLast();
        boolean hidden = opening == Opening.SEALED && port.equals("tcp/443");
        assertThat(last.sealed()).as("%s %s", opening, port).isEqualTo(hidden);
        assertThat(last.settled()).as("%s %s", opening, port).isEqualTo(!hidden);
        assertThat(last.stage()).isEqualTo(Stage.CONTENT);
      }
    }
  }
}
