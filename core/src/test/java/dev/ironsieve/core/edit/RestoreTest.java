package dev.ironsieve.core.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** The way back to another state of a rulebase. */
class RestoreTest {
  private static Rulebase after(Rulebase base, long seed, int edits) {
    RandomEdits random = new RandomEdits(seed);
    Rulebase state = base;
    for (int i = 0; i < edits; i++) {
      state = random.next(state).apply(state);
    }
    return state;
  }

  @Test
  void aRestoredStateIsTheWholeStateAndSaysEveryRuleThatDiffers() {
    for (int seed = 0; seed < Rounds.of(200); seed++) {
      Rulebase base = new SmallWorld(seed, false).rulebase(8);
      Rulebase now = after(base, seed, 6);
      Edit back = new Edit.Restore("revision 1", base);
      assertThat(back.apply(now)).isEqualTo(base);
      Optional<Edit> undo = back.inverse(now);
      assertThat(undo.map(edit -> edit.apply(base)).orElse(base)).isEqualTo(now);
      Set<String> touched = Touched.ruleIds(back.touched(now));
      for (Rule rule : now.rules()) {
        if (!base.rules().contains(rule)) {
          assertThat(touched).as("seed %d", seed).contains(rule.id());
        }
      }
      for (Rule rule : base.rules()) {
        if (!now.rules().contains(rule)) {
          assertThat(touched).as("seed %d", seed).contains(rule.id());
        }
      }
    }
  }

  @Test
  void theStateThatThereIsChangesNothing() {
    Rulebase base = new SmallWorld(1, false).rulebase(8);
    Edit back = new Edit.Restore("revision 1", base);
    assertThat(back.touched(base)).isEmpty();
    assertThat(back.inverse(base)).isEmpty();
  }

  @Test
  void allRulesTakenBackAreAsTheyWere() {
    for (int seed = 0; seed < Rounds.of(200); seed++) {
      Rulebase base = new SmallWorld(seed, false).rulebase(8);
      Rulebase now = after(base, seed, 6);
      Set<String> all = new LinkedHashSet<>(base.rules().stream().map(Rule::id).toList());
      now.rules().forEach(rule -> all.add(rule.id()));
      Rulebase back =
          RestoredRules.of(List.copyOf(all), base, now).map(edit -> edit.apply(now)).orElse(now);
      assertThat(back.rules()).as("seed %d", seed).isEqualTo(base.rules());
    }
  }

  @Test
  void othersStayAsTheyAre() {
    for (int seed = 0; seed < Rounds.of(200); seed++) {
      Rulebase base = new SmallWorld(seed, false).rulebase(8);
      Rulebase now = after(base, seed, 6);
      List<Rule> either = new ArrayList<>(base.rules());
      either.addAll(now.rules());
      String one = either.get(new Random(seed).nextInt(either.size())).id();
      Rulebase back =
          RestoredRules.of(List.of(one), base, now).map(edit -> edit.apply(now)).orElse(now);
      String as = "seed " + seed + ", " + one;
      assertThat(without(one, back)).as(as).isEqualTo(without(one, now));
      assertThat(rule(one, back)).as(as).isEqualTo(rule(one, base));
    }
  }

  private static List<Rule> without(String id, Rulebase of) {
    return of.rules().stream().filter(rule -> !rule.id().equals(id)).toList();
  }

  private static Optional<Rule> rule(String id, Rulebase of) {
    return of.rules().stream().filter(rule -> rule.id().equals(id)).findFirst();
  }

  private static Rulebase rules(String... sections) {
    List<Section> out = new ArrayList<>();
    for (String section : sections) {
      List<Rule> rules =
          Arrays.stream(section.substring(2).split(""))
              .filter(id -> !id.isEmpty())
              .map(id -> Rule.matchingAll(id, id, Verdict.DROP))
              .toList();
      out.add(new Section(section.substring(0, 1), section.substring(0, 1), rules));
    }
    return Rulebase.empty("b").withSections(out);
  }

  private static String back(String id, Rulebase base, Rulebase now) {
    Rulebase back = RestoredRules.of(List.of(id), base, now).orElseThrow().apply(now);
    StringBuilder out = new StringBuilder();
    for (Section section : back.sections()) {
      out.append(section.id()).append(':');
      section.rules().forEach(rule -> out.append(rule.id()));
      out.append(' ');
    }
    return out.toString().strip();
  }

  @Test
  void aRuleStandsWhereTheFewestAreOnItsOtherSide() {
    Rulebase base = rules("S:abcd", "T:ef");
    assertThat(back("d", base, rules("S:dabc", "T:ef"))).isEqualTo("S:abcd T:ef");
    assertThat(back("b", base, rules("S:acd", "T:ef"))).isEqualTo("S:abcd T:ef");
    assertThat(back("c", base, rules("S:bad", "T:ef"))).isEqualTo("S:bacd T:ef");
    assertThat(back("f", base, rules("S:abfcd", "T:e"))).isEqualTo("S:abcd T:ef");
    assertThat(back("x", base, rules("S:abxcd", "T:ef"))).isEqualTo("S:abcd T:ef");
    assertThat(back("e", base, rules("S:abcd", "U:y"))).isEqualTo("S:abcd U:y T:e");
    assertThat(RestoredRules.of(List.of("c"), base, rules("S:bacd", "T:ef"))).isEmpty();
  }

  @Test
  void aRuleThatIsInNeitherStateIsRefused() {
    Rulebase base = rules("S:ab");
    assertThatThrownBy(() -> RestoredRules.of(List.of("z"), base, base))
        .isInstanceOf(MissingTarget.class);
  }
}
