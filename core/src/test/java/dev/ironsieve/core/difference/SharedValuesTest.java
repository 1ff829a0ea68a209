package dev.ironsieve.core.difference;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.text.ConnectionLine;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class SharedValuesTest {
  private static final Vocabulary MONDAY = people("monday", List.of("ann", "ben"));
  private static final Vocabulary TUESDAY = people("tuesday", List.of("cat", "ben"));

  /** Everybody is a deck hand. */
  private static Vocabulary people(String edition, List<String> names) {
    Vocabulary.Term all = new Vocabulary.Term("deck hands", IntSet.range(0, names.size() - 1));
    return new Vocabulary(Coordinate.PERSON, edition, names, List.of(all));
  }

  private static Rulebase base(List<Vocabulary> pinned, List<Rule> rules, String... zones) {
    return new Rulebase(
        "quay",
        List.of(zones).stream().map(zone -> new Zone(zone, List.of(), "")).toList(),
        List.of(),
        List.of(),
        pinned,
        List.of(new Section("s", "S", rules)));
  }

  private static Rule forDeckHands() {
    return Rule.matchingAll("r", "R", Verdict.ALLOW)
        .asking(Map.of(Coordinate.PERSON, Criterion.of("deck hands")));
  }

  private static boolean decides(Rulebase base, String person) {
    String line = "from 10.0.0.1 in pier to 10.0.0.2 in pier tcp/80 person " + person;
    return new Matcher(base).decide(ConnectionLine.parse(line, base)).isPresent();
  }

  @Test
  void statesWithOtherEditionsGetTheValuesOfBothAndTheirRulesMeanTheSame() {
    Rulebase before = base(List.of(MONDAY), List.of(forDeckHands()), "pier");
    Rulebase after = base(List.of(TUESDAY), List.of(forDeckHands()), "pier");
    SharedValues shared = SharedValues.of(before, after).orElseThrow();
    assertThat(decides(shared.before(), "ann")).isTrue();
    assertThat(decides(shared.before(), "ben")).isTrue();
    assertThat(decides(shared.before(), "cat")).isFalse();
    assertThat(decides(shared.after(), "ann")).isFalse();
    assertThat(decides(shared.after(), "ben")).isTrue();
    assertThat(decides(shared.after(), "cat")).isTrue();
    Difference difference = Differences.between(shared.before(), shared.after(), Aspect.VERDICT);
    assertThat(difference.complete()).isTrue();
    assertThat(difference.parts())
        .extracting(part -> part.witness().terms().get(Coordinate.PERSON))
        .containsOnly("ann", "cat");
  }

  @Test
  void anEditionThatOneStateHasIsAddedToTheOther() {
    Rulebase before = base(List.of(), List.of(), "pier");
    Rulebase after = base(List.of(MONDAY), List.of(forDeckHands()), "pier");
    SharedValues shared = SharedValues.of(before, after).orElseThrow();
    assertThat(shared.before().vocabulary(Coordinate.PERSON)).isPresent();
    assertThat(Differences.between(shared.before(), shared.after(), Aspect.VERDICT).parts())
        .isNotEmpty();
    assertThat(SharedValues.of(after, before).orElseThrow().after().vocabulary(Coordinate.PERSON))
        .isPresent();
  }

  @Test
  void equalEditionsStayAndOtherZonesHaveNothingInCommon() {
    Rulebase before = base(List.of(MONDAY), List.of(forDeckHands()), "pier");
    SharedValues same = SharedValues.of(before, before).orElseThrow();
    assertThat(same.before()).isSameAs(before);
    assertThat(same.after()).isSameAs(before);
    assertThat(SharedValues.of(before, base(List.of(MONDAY), List.of(), "pier", "quay"))).isEmpty();
  }
}
