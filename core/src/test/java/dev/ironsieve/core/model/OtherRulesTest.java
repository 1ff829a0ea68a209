package dev.ironsieve.core.model;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;

/**
 * Rulebases that take over from another what its rules and theirs have in common, against such as
 * are made from nothing.
 */
class OtherRulesTest {
  private static final List<Rule> RULES =
      List.of(
          rule("a"),
          rule("b"),
          rule("c"),
          said("d", Coordinate.SITE, "quay.example"),
          said("e", Coordinate.SITE, "QUAY.example"),
          said("f", Coordinate.SITE, "pier.example"),
          said("g", Coordinate.TIME, "weekdays 06:00-22:00"),
          said("h", Coordinate.DEVICE, "managed"),
          said("i", Coordinate.FILE_KIND, "PDF"),
          said("j", Coordinate.SITE, "ours"),
          rule("a"), // an id that is taken
          said("k", Coordinate.SITE, "no host"),
          rule("l").matching(Criterion.of("outside"), any(), any(), any(), any()),
          rule("m").handled("plan", null),
          rule("n").handled(null, "notice"),
          rule("o").matching(any(), any(), any(), any(), Criterion.of(ServiceItem.parse("web"))),
          rule("p").matching(any(), Criterion.of(AddressItem.parse("hosts")), any(), any(), any()),
          rule("q")
              .matching(any(), any(), any(), any(), Criterion.of(new ServiceItem.UsualPorts())));

  private static Rule rule(String id) {
    return Rule.matchingAll(id, id, Verdict.ALLOW);
  }

  private static Rule said(String id, Coordinate coordinate, String what) {
    return rule(id).asking(Map.of(coordinate, Criterion.of(what)));
  }

  private static <T> Criterion<T> any() {
    return Criterion.any();
  }

  private static Rulebase fresh(List<Section> sections) {
    TermObject ours =
        new TermObject(ObjectKind.HOST_LIST, "ours", List.of("ours.example", "pier.example"), "");
    return new Rulebase(
        "test",
        List.of(new Zone("inside", List.of(AddressRange.parse("10.0.0.0/8")), "")),
        List.of(),
        List.of(),
        List.of(ours),
        List.of(),
        List.of(),
        GatewaySettings.NONE,
        sections);
  }

  @Test
  void whatOtherRulesSayIsKnownAndWhatIsWrongIsRefused() {
    int refused = 0;
    int others = 0;
    for (int seed = 0; seed < Rounds.of(600); seed++) {
      Random random = new Random(seed);
      List<Rule> rules = new ArrayList<>();
      for (int i = random.nextInt(5); i >= 0; i--) {
        rules.add(RULES.get(random.nextInt(10)));
      }
      List<Rule> start = rules.stream().distinct().toList();
      Rulebase base = fresh(sections(start, random));
      for (int edit = 0; edit < 6; edit++) {
        List<Rule> next = new ArrayList<>(base.rules());
        int wrong = random.nextInt(4) == 0 ? RULES.size() : 10;
        int at = random.nextInt(next.size() + 1);
        switch (random.nextInt(4)) {
          case 0 -> next.add(at, RULES.get(random.nextInt(wrong)));
          case 1 -> next.subList(Math.max(0, at - 1), at).clear();
          case 2 -> next.subList(at, next.size()).clear();
          default -> {
            next.subList(Math.max(0, at - 1), at).clear();
            next.add(Math.max(0, at - 1), RULES.get(random.nextInt(wrong)));
          }
        }
        List<Section> sections = sections(next, random);
        Rulebase before = base;
        String expected = outcome(() -> fresh(sections));
        assertThat(outcome(() -> before.withSections(sections)))
            .as("seed %d: %s after %s", seed, names(next), names(before.rules()))
            .isEqualTo(expected);
        if (expected.isEmpty()) {
          base = before.withSections(sections);
          others += base.namesMeanAsIn(before) ? 0 : 1;
          assertThat(base).isEqualTo(fresh(sections)).hasSameHashCodeAs(fresh(sections));
          assertThat(base.namesMeanAsIn(fresh(sections)))
              .as("seed %d: %s after %s", seed, names(next), names(before.rules()))
              .isTrue();
        } else {
          refused++;
        }
      }
    }
    assertThat(refused).isPositive();
    assertThat(others).isPositive();
  }

  /** In one section or two. */
  private static List<Section> sections(List<Rule> rules, Random random) {
    int cut = random.nextBoolean() ? rules.size() : random.nextInt(rules.size() + 1);
    Section first = new Section("s1", "First", rules.subList(0, cut));
    return cut == rules.size()
        ? List.of(first)
        : List.of(first, new Section("s2", "Second", rules.subList(cut, rules.size())));
  }

  private static String names(List<Rule> rules) {
    return String.join(" ", rules.stream().map(Rule::id).toList());
  }

  private static String outcome(Runnable made) {
    try {
      made.run();
      return "";
    } catch (InvalidModel e) {
      return e.getMessage();
    }
  }
}
