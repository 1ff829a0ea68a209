package dev.ironsieve.core.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class RulebaseTest {
  private static AddressObject group(String name, String... members) {
    return new AddressObject(name, List.of(members).stream().map(AddressItem::parse).toList(), "");
  }

  private static Rulebase base(List<AddressObject> addresses, Rule... rules) {
    return new Rulebase(
        "test",
        List.of(new Zone("inside", List.of(), "")),
        addresses,
        List.of(),
        List.of(new Section("s", "Rules", List.of(rules))));
  }

  @Test
  void groupsMayNestButNotInACircle() {
    base(List.of(group("a", "b", "c"), group("b", "c"), group("c", "10.0.0.1")));
    assertThatThrownBy(
            () -> base(List.of(group("a", "b"), group("b", "C"), group("c", "10.0.0.1", "a"))))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("no group inside itself")
        .hasMessageMatching(".*(a > b > c > a|b > c > a > b|c > a > b > c).*");
  }

  @Test
  void groupsNestToAHundredLevelsAndNoDeeper() {
    List<AddressObject> chain =
        IntStream.range(0, 150)
            .mapToObj(i -> group("g" + i, i == 149 ? "10.0.0.1" : "g" + (i + 1)))
            .toList();
    assertThatThrownBy(() -> base(chain)).hasMessageContaining("at most 100 levels");
  }

  @Test
  void everyNameThatIsMentionedExists() {
    Rule rule = Rule.matchingAll("r", "Kiosks", Verdict.ALLOW);
    Rule lost =
        rule.matching(
            Criterion.of("outside"),
            Criterion.any(),
            Criterion.any(),
            Criterion.any(),
            Criterion.any());
    assertThatThrownBy(() -> base(List.of(), lost))
        .isInstanceOf(InvalidModel.class)
        .hasMessage("rule \"Kiosks\": expected a known zone, found \"outside\"");
    assertThatThrownBy(() -> base(List.of(), rule, rule)).hasMessageContaining("\"r\" twice");
    assertThatThrownBy(() -> base(List.of(group("X", "10.0.0.1"), group("x", "10.0.0.2"))))
        .hasMessageContaining("each name once");
  }

  @Test
  void usersOfAnObjectAreFoundThroughGroups() {
    Rule direct =
        Rule.matchingAll("r1", "direct", Verdict.ALLOW)
            .matching(
                Criterion.any(),
                Criterion.of(AddressItem.parse("inner")),
                Criterion.any(),
                Criterion.any(),
                Criterion.any());
    Rule through =
        Rule.matchingAll("r2", "through", Verdict.ALLOW)
            .matching(
                Criterion.any(),
                Criterion.any(),
                Criterion.any(),
                new Criterion<>(List.of(), List.of(AddressItem.parse("OUTER"))),
                Criterion.any());
    Rule other = Rule.matchingAll("r3", "other", Verdict.ALLOW);
    Rulebase base =
        base(List.of(group("inner", "10.0.0.1"), group("outer", "Inner")), direct, through, other);
    assertThat(base.rulesUsing(ObjectKind.ADDRESS, "inner")).containsExactly(direct, through);
    assertThat(base.rulesUsing(ObjectKind.ADDRESS, "outer")).containsExactly(through);
    assertThat(base.rulesUsing(ObjectKind.ZONE, "inside")).isEmpty();
  }

  @Test
  void namesNeverReadLikeLiterals() {
    for (String name : List.of("10 net", "tcp", "a:b", "a/b", " a", "any", "")) {
      assertThatThrownBy(() -> new Zone(name, List.of(), ""))
          .as(name)
          .isInstanceOf(InvalidModel.class)
          .hasMessageContaining("zone name");
    }
    assertThat(new Zone("Größe & Co. (north)", List.of(), "").name()).startsWith("Größe");
  }

  @Test
  void rulesCheckTheirOwnWords() {
    assertThatThrownBy(() -> Rule.matchingAll("r", "two\nlines", Verdict.DROP))
        .hasMessageContaining("rule name");
    assertThatThrownBy(() -> Rule.matchingAll("no good", "x", Verdict.DROP))
        .hasMessageContaining("rule id");
  }
}
