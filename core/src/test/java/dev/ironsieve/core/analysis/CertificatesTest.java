package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;

/** About which rules an edit asks again, and about which it need not. */
class CertificatesTest {
  private static Rule allow(String id, int from, int to) {
    return TcpRules.rule(id, Verdict.ALLOW, from, to);
  }

  private static Rule drop(String id, int from, int to) {
    return TcpRules.rule(id, Verdict.DROP, from, to);
  }

  /** Rules, the last one last. */
  private static final class Known {
    private final List<Rule> rules;
    private final RuleIndex index;
    private final Certificates certificates;

    Known(Rule... rules) {
      this.rules = new ArrayList<>(List.of(rules));
      index = new RuleIndex(base());
      certificates = new Certificates(index, LiveAnalysis.STEPS);
    }

    private Rulebase base() {
      List<Section> sections = List.of(new Section("s", "S", rules));
      return new Rulebase("b", List.of(), List.of(), List.of(), sections);
    }

    /** Ids of the rules about which it is asked when another comes in. */
    Set<String> with(int place, Rule rule) {
      rules.add(place, rule);
      return asked();
    }

    /** Ids of the rules about which it is asked when one goes. */
    Set<String> without(String id) {
      rules.removeIf(rule -> rule.id().equals(id));
      return asked();
    }

    private Set<String> asked() {
      RuleIndex.Change change = index.update(base().rules(), Set.of()).orElseThrow();
      Set<String> out = new TreeSet<>();
      certificates.update(change, IndexChange.of(change, index)).stream()
          .forEach(handle -> out.add(index.rule(handle).id()));
      return out;
    }
  }

  @Test
  void aCoveredRuleStaysSoWhateverComesBetweenThatSaysTheSame() {
    Known known = new Known(allow("cover", 1, 100), allow("below", 10, 20));
    assertThat(known.with(1, allow("new", 10, 12))).containsExactly("new");
  }

  @Test
  void aCoveredRuleIsAskedWhenItsCoverMayBeOutdone() {
    Known known = new Known(allow("cover", 1, 100), allow("below", 10, 20));
    assertThat(known.with(0, allow("new", 1, 100))).containsExactly("below", "cover", "new");
    known = new Known(allow("cover", 1, 100), allow("below", 10, 20));
    assertThat(known.with(0, allow("new", 30, 40))).doesNotContain("below");
  }

  @Test
  void arrivalOfAnotherVerdictAboveARedundantRuleIsAsked() {
    Known known = new Known(allow("cover", 1, 100), allow("below", 10, 20));
    assertThat(known.with(1, drop("new", 10, 12))).contains("below");
    known = new Known(drop("cover", 1, 100), allow("below", 10, 20));
    assertThat(known.with(1, drop("new", 10, 12))).doesNotContain("below");
  }

  @Test
  void aRuleCoveredByTwoIsAskedAsOneMayDo() {
    Known known = new Known(drop("low", 1, 50), drop("high", 51, 100), allow("below", 40, 60));
    assertThat(known.with(0, drop("new", 1, 100))).contains("below");
    known = new Known(drop("low", 1, 50), drop("high", 51, 100), allow("below", 40, 60));
    assertThat(known.with(2, drop("new", 40, 60))).contains("below");
  }

  @Test
  void onlyTheLossOfACauseUncoversAShadowedRule() {
    Known known =
        new Known(
            drop("low", 1, 50),
            drop("high", 51, 100),
            drop("idle", 45, 46),
            allow("below", 40, 60));
    assertThat(known.without("idle")).isEmpty();
    assertThat(known.without("low")).contains("below");
  }

  @Test
  void aRuleThatGoesIsNoRivalAnyMore() {
    Known known = new Known(allow("first", 1, 10), drop("next", 1, 20), drop("last", 5, 30));
    assertThat(known.without("last")).doesNotContain("first");
    assertThat(known.without("next")).contains("first");
  }

  @Test
  void aRuleThatTakesWhereARuleMattersIsAskedAbout() {
    Known known = new Known(allow("first", 1, 10), drop("next", 5, 20));
    assertThat(known.with(1, allow("new", 15, 16))).doesNotContain("first");
    known = new Known(allow("first", 1, 10), drop("next", 1, 20));
    assertThat(known.with(1, allow("new", 1, 10))).contains("first");
  }

  @Test
  void aCorrelatedPairIsLookedForAgainOnlyWhereItIsOutdone() {
    Known known = new Known(drop("above", 1, 100), allow("below", 50, 150));
    assertThat(known.with(1, allow("new", 60, 61))).doesNotContain("below");
    assertThat(known.with(0, allow("top", 1, 40))).doesNotContain("below");
    assertThat(known.without("top")).doesNotContain("below");
    assertThat(known.with(0, allow("top", 50, 100))).contains("below");
    assertThat(known.without("top")).contains("below");
    assertThat(known.without("above")).contains("below");
  }

  @Test
  void aRuleIsAskedWhenItComesToCorrelate() {
    Known known = new Known(allow("above", 1, 100), allow("below", 50, 150));
    assertThat(known.with(0, allow("same", 90, 99))).doesNotContain("below");
    assertThat(known.with(0, drop("other", 45, 60))).contains("below");
  }

  @Test
  void aGeneralisedRuleIsLookedForAgainOnlyWhenItIsOutdone() {
    Known known = new Known(drop("inner", 10, 20), allow("outer", 1, 100));
    assertThat(known.with(0, allow("new", 30, 31))).doesNotContain("outer");
    assertThat(known.with(2, allow("last", 10, 20))).doesNotContain("outer");
    assertThat(known.with(0, drop("top", 10, 20))).contains("outer");
    assertThat(known.without("top")).contains("outer");
  }

  @Test
  void aRuleThatDoesNotMeetTheChangedOneIsLeftAlone() {
    Known known =
        new Known(
            drop("one", 1, 10),
            allow("two", 5, 20),
            drop("three", 100, 120),
            allow("four", 110, 130));
    assertThat(known.with(0, drop("new", 1, 20))).containsExactly("new", "one", "two");
    assertThat(known.without("new")).containsExactly("one", "two");
  }
}
