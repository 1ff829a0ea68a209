package dev.ironsieve.core.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.analysis.Finding;
import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.Removal;
import dev.ironsieve.core.equivalence.EquivalentObjects;
import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.vocabulary.ValueFinder;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Device states in rules and objects, against the facts of each. */
class DeviceStateTest {
  private static final List<String> FACTS =
      List.of(
          "managed",
          "unmanaged",
          "platform kelpos",
          "platform ternos",
          "has disk-lock",
          "lacks disk-lock",
          "has fresh-updates",
          "Managed, has disk-lock",
          "unmanaged, platform kelpos",
          "managed, platform ternos, has disk-lock, lacks fresh-updates");

  private static Rulebase base(List<TermObject> objects, List<Criterion<String>> asked) {
    List<Rule> rules = new ArrayList<>();
    for (Criterion<String> criterion : asked) {
      String id = "r" + rules.size();
      rules.add(
          Rule.matchingAll(id, id, Verdict.ALLOW).asking(Map.of(Coordinate.DEVICE, criterion)));
    }
    return new Rulebase(
        "b",
        List.of(),
        List.of(),
        List.of(),
        objects,
        List.of(),
        List.of(),
        GatewaySettings.NONE,
        List.of(new Section("s", "S", rules)));
  }

  private static TermObject state(String name, String... members) {
    return new TermObject(ObjectKind.DEVICE_STATE, name, List.of(members), "");
  }

  private static Connection on(String device) {
    return new Connection(
        Connection.Endpoint.NOT_KNOWN,
        Connection.Endpoint.NOT_KNOWN,
        Connection.UNKNOWN,
        Connection.UNKNOWN,
        Connection.UNKNOWN,
        Map.of(Coordinate.DEVICE, device));
  }

  /** One state by the definition in docs/meaning.md, and nothing else. */
  private static boolean holds(String asked, String device) {
    List<String> facts = List.of(device.split(", "));
    for (String fact : asked.toLowerCase().split(", ")) {
      boolean fits =
          fact.startsWith("lacks ")
              ? !facts.contains("has " + fact.substring(6))
              : facts.contains(fact);
      if (!fits) {
        return false;
      }
    }
    return true;
  }

  private static List<String> devices() {
    List<String> out = new ArrayList<>();
    for (String managed : List.of("managed", "unmanaged")) {
      for (String platform :
          List.of("", ", platform kelpos", ", platform ternos", ", platform x")) {
        for (String lock : List.of("", ", has disk-lock")) {
          for (String rest : List.of("", ", has fresh-updates", ", has a-name")) {
            out.add(managed + platform + lock + rest);
          }
        }
      }
    }
    return out;
  }

  @Test
  void rulesMeanWhatEachStateSays() {
    for (int seed = 0; seed < Rounds.of(300); seed++) {
      Random random = new Random(seed);
      List<String> members = some(random, 2);
      List<String> items = some(random, 2);
      List<String> except = random.nextBoolean() ? List.of() : some(random, 1);
      Rulebase base =
          base(
              List.of(state("ours", members.toArray(String[]::new))),
              List.of(Criterion.of("Ours"), new Criterion<>(items, except)));
      Matcher matcher = new Matcher(base);
      for (String device : devices()) {
        boolean ours = members.stream().anyMatch(m -> holds(m, device));
        boolean said =
            items.stream().anyMatch(m -> holds(m, device))
                && except.stream().noneMatch(m -> holds(m, device));
        assertThat(matcher.decide(on(device)).map(Rule::id).orElse("none"))
            .as("seed %d: %s; %s less %s; %s", seed, members, items, except, device)
            .isEqualTo(ours ? "r0" : said ? "r1" : "none");
      }
    }
  }

  private static List<String> some(Random random, int most) {
    List<String> out = new ArrayList<>();
    for (int i = random.nextInt(most); i >= 0; i--) {
      out.add(FACTS.get(random.nextInt(FACTS.size())));
    }
    return out;
  }

  @Test
  void aDeviceOfWhichItIsNotKnownWhetherItIsManagedIsUnknown() {
    Rulebase base = base(List.of(), List.of(Criterion.of("has disk-lock")));
    assertThat(
            new ValueFinder(base.vocabulary(Coordinate.DEVICE).orElseThrow())
                .value("has disk-lock"))
        .isEmpty();
    assertThat(new Matcher(base).decide(on("has disk-lock"))).isEmpty();
  }

  @Test
  void theOrderOfStatesIsChecked() {
    Rulebase base =
        base(
            List.of(state("healthy", "managed, has disk-lock")),
            List.of(
                Criterion.of("managed"),
                Criterion.of("healthy"),
                Criterion.of("unmanaged"),
                Criterion.of("lacks disk-lock")));
    LiveAnalysis analysis = new LiveAnalysis(base);
    assertThat(analysis.findings("r1"))
        .extracting(Finding::kind, Finding::causes)
        .contains(org.assertj.core.groups.Tuple.tuple(Finding.Kind.REDUNDANT_ABOVE, List.of("r0")));
    assertThat(analysis.findings("r3"))
        .extracting(Finding::kind, Finding::causes)
        .contains(
            org.assertj.core.groups.Tuple.tuple(Finding.Kind.REDUNDANT_ABOVE, List.of("r0", "r2")));
  }

  @Test
  void aLineSaysADeviceAndReadsBack() {
    Rulebase base = base(List.of(), List.of(Criterion.of("managed, has disk-lock")));
    Connection connection =
        ConnectionLine.parse("device Managed, platform x, has disk-lock tcp/443", base);
    assertThat(connection.protocol()).isEqualTo(6);
    assertThat(new Matcher(base).decide(connection)).isPresent();
    assertThat(ConnectionLine.parse(ConnectionLine.format(connection), base)).isEqualTo(connection);
    Connection value = ConnectionLine.parse("device managed, else to 10.0.0.1", base);
    assertThat(value.terms()).containsEntry(Coordinate.DEVICE, "managed, else");
    assertThat(new Matcher(base).decide(value)).isEmpty();
    assertThatThrownBy(() -> ConnectionLine.parse("device shiny", base))
        .isInstanceOf(InvalidText.class)
        .hasMessageContaining("a device such as managed");
  }

  @Test
  void aLineMaySayWhatNoRuleSpeaksOf() {
    Rulebase none = base(List.of(), List.of());
    String line = "tcp/443 device managed site www.quay.example file kind PDF time mon 10:15";
    assertThat(ConnectionLine.format(ConnectionLine.parse(line, none))).isEqualTo(line);
    assertThat(new Matcher(none).decide(ConnectionLine.parse(line, none))).isEmpty();
  }

  @Test
  void statesAreObjectsLikeOthers() {
    TermObject first = state("locked", "managed, has disk-lock");
    TermObject twin = state("safe", "has disk-lock, managed");
    Rulebase base = base(List.of(first, twin), List.of(Criterion.of("locked")));
    assertThat(EquivalentObjects.in(base))
        .containsExactly(
            new EquivalentObjects.Group(ObjectKind.DEVICE_STATE, List.of("locked", "safe")));
    Edit rename = new Edit.PutTerms(state("shut", "managed, has disk-lock"), "locked");
    Rulebase renamed = rename.apply(base);
    assertThat(renamed.rules().getFirst().term(Coordinate.DEVICE).items()).containsExactly("shut");
    assertThat(rename.inverse(base).orElseThrow().apply(renamed))
        .extracting(Rulebase::rules)
        .isEqualTo(base.rules());
    Removal removal = Removal.of(base, ObjectKind.DEVICE_STATE, "locked");
    assertThat(removal.changes()).hasSize(1);
    assertThat(removal.changes().getFirst().after().enabled()).isFalse();
    assertThat(Differences.between(base, removal.lessInUse(base), Aspect.VERDICT).parts())
        .isNotEmpty();
  }

  @Test
  void rulebasesThatSpeakOfOtherConditionsAreCompared() {
    for (int seed = 0; seed < Rounds.of(60); seed++) {
      Random random = new Random(seed);
      Rulebase before = base(List.of(), List.of(new Criterion<>(some(random, 2), List.of())));
      Rulebase after = base(List.of(), List.of(new Criterion<>(some(random, 2), List.of())));
      Matcher was = new Matcher(before);
      Matcher is = new Matcher(after);
      boolean differ =
          devices().stream()
              .anyMatch(d -> was.decide(on(d)).isPresent() != is.decide(on(d)).isPresent());
      var difference = Differences.between(before, after, Aspect.VERDICT);
      assertThat(difference.complete()).isTrue();
      assertThat(difference.parts().isEmpty()).as("seed %d", seed).isEqualTo(!differ);
      Matcher apart = new Matcher(before.tellingApart(after));
      for (String device : devices()) {
        assertThat(apart.decide(on(device)).isPresent())
            .isEqualTo(was.decide(on(device)).isPresent());
      }
    }
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        "shiny",
        "managed,",
        "managed, unmanaged",
        "has x, lacks x",
        "platform a, platform b",
        "has",
        "has two words",
        "not managed",
        "has x, has X",
        "platform -a"
      })
  void whatIsNoStateIsRefused(String text) {
    assertThat(DeviceState.isOne(text)).isFalse();
    assertThatThrownBy(() -> state("ours", text))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("device");
    assertThatThrownBy(() -> base(List.of(), List.of(Criterion.of(text))))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("device state, or facts such as managed");
  }

  @Test
  void tooManyWaysToBeAreRefused() {
    List<Criterion<String>> asked = new ArrayList<>();
    for (int i = 0; i < 14; i++) {
      asked.add(Criterion.of("has c" + i));
    }
    assertThatThrownBy(() -> base(List.of(), asked))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("0 platforms and 14 conditions");
  }

  @Test
  void waysToBeAreAsManyAsIsSaidAndNoMore() {
    List<Criterion<String>> asked = new ArrayList<>();
    for (int i = 0; i < 13; i++) {
      asked.add(Criterion.of("has c" + i));
    }
    assertThat(values(asked)).hasSize(16_384 + 1);
    asked.add(Criterion.of("platform kelpos"));
    assertThatThrownBy(() -> base(List.of(), asked))
        .hasMessageContaining("1 platforms and 13 conditions");
  }

  @Test
  void valuesSayAllThatHoldsAndElseForTheRest() {
    assertThat(values(List.of(Criterion.of("managed, platform kelpos, has disk-lock"))))
        .containsExactly(
            "managed, platform kelpos, has disk-lock",
            "managed, platform kelpos, else",
            "managed, has disk-lock, else",
            "managed, else",
            "unmanaged, platform kelpos, has disk-lock",
            "unmanaged, platform kelpos, else",
            "unmanaged, has disk-lock, else",
            "unmanaged, else",
            "unknown device");
    assertThat(values(List.of(Criterion.of("has disk-lock"))))
        .containsExactly(
            "managed, has disk-lock",
            "managed, else",
            "unmanaged, has disk-lock",
            "unmanaged, else",
            "unknown device");
    assertThat(values(List.of(Criterion.of("managed"))))
        .containsExactly("managed", "unmanaged", "unknown device");
  }

  private static List<String> values(List<Criterion<String>> asked) {
    return base(List.of(), asked).vocabulary(Coordinate.DEVICE).orElseThrow().values();
  }
}
