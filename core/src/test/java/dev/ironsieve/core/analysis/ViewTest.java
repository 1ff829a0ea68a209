package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Logging;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Views of rules, by example. */
class ViewTest {
  private static final Vocabulary PEOPLE =
      new Vocabulary(Coordinate.PERSON, "1", List.of("ada", "ben"), List.of());

  private static Rule rule(String id, Verdict verdict, String from, String service) {
    return Rule.matchingAll(id, "rule " + id, verdict)
        .matching(
            Criterion.any(),
            from.isEmpty() ? Criterion.any() : Criterion.of(AddressItem.parse(from)),
            Criterion.any(),
            Criterion.any(),
            service.isEmpty() ? Criterion.any() : Criterion.of(ServiceItem.parse(service)));
  }

  private static Rulebase base(Rule... rules) {
    return new Rulebase(
        "b",
        List.of(new Zone("quay", List.of(), "")),
        List.of(),
        List.of(),
        List.of(PEOPLE),
        List.of(new Section("s", "S", List.of(rules))));
  }

  private static List<Finding> findings(LiveAnalysis live, String id, Finding.Kind kind) {
    return live.findings(id).stream().filter(f -> f.kind() == kind).toList();
  }

  private static boolean isTooBroad(Rule rule) {
    return !findings(new LiveAnalysis(base(rule)), rule.id(), Finding.Kind.TOO_BROAD).isEmpty();
  }

  @Test
  void aRuleIsTooBroadThatAllowsEverybodyEverything() {
    Rule all = rule("r", Verdict.ALLOW, "", "");
    assertThat(isTooBroad(all)).isTrue();
    assertThat(isTooBroad(rule("r", Verdict.ALLOW, "10.0.0.0/8", ""))).isTrue();
    assertThat(isTooBroad(rule("r", Verdict.DROP, "", ""))).isFalse();
    assertThat(isTooBroad(rule("r", Verdict.ALLOW, "", "tcp/443"))).isFalse();
    assertThat(isTooBroad(all.enabled(false))).isFalse();
    assertThat(isTooBroad(all.asking(Map.of(Coordinate.PERSON, Criterion.of("ada"))))).isFalse();
  }

  @Test
  void oneRuleBelowIsTheSmallestCauseAndOfSeveralItIsNotKnown() {
    Rule port = rule("r", Verdict.ALLOW, "10.0.0.0/8", "tcp/80");
    LiveAnalysis one = new LiveAnalysis(base(port, rule("a", Verdict.ALLOW, "10.0.0.0/7", "")));
    Finding below = findings(one, "r", Finding.Kind.REDUNDANT_BELOW).getFirst();
    assertThat(below.causes()).containsExactly("a");
    assertThat(below.smallest()).isTrue();
    assertThat(below.decidedBy()).isEqualTo("a");
    Rulebase base =
        base(
            port,
            rule("a", Verdict.ALLOW, "10.0.0.0/9", ""),
            rule("b", Verdict.ALLOW, "10.128.0.0/9", ""),
            rule("c", Verdict.ALLOW, "10.1.0.0/16", ""));
    Finding two = findings(new LiveAnalysis(base), "r", Finding.Kind.REDUNDANT_BELOW).getFirst();
    assertThat(two.causes()).containsExactly("a", "b");
    assertThat(two.smallest()).isFalse();
    assertThat(new Matcher(base).decide(two.witness())).map(Rule::id).contains("r");
    List<Rule> others = new ArrayList<>(base.rules());
    others.removeFirst();
    Rulebase without = base(others.toArray(Rule[]::new));
    assertThat(new Matcher(without).decide(two.witness())).map(Rule::id).contains(two.decidedBy());
    Rulebase other =
        base(
            port,
            rule("x", Verdict.DROP, "10.1.2.3", ""),
            rule("a", Verdict.ALLOW, "10.0.0.0/7", ""));
    assertThat(findings(new LiveAnalysis(other), "r", Finding.Kind.REDUNDANT_BELOW)).isEmpty();
  }

  @Test
  void rulesCanBeMergedWithTheNextThatIsThere() {
    Rule first = rule("r1", Verdict.ALLOW, "", "tcp/1");
    Rule off = rule("off", Verdict.DROP, "", "").enabled(false);
    Rule second = rule("r2", Verdict.ALLOW, "", "tcp/2");
    LiveAnalysis live = new LiveAnalysis(base(first, off, second));
    assertThat(findings(live, "r1", Finding.Kind.MERGEABLE))
        .extracting(Finding::causes)
        .containsExactly(List.of("r2"));
    assertThat(findings(live, "r2", Finding.Kind.MERGEABLE)).isEmpty();
    assertThat(findings(live, "off", Finding.Kind.MERGEABLE)).isEmpty();
    assertThat(live.findings())
        .containsExactlyElementsOf(
            List.of("r1", "off", "r2").stream().flatMap(id -> live.findings(id).stream()).toList());
    LiveAnalysis gone = new LiveAnalysis(base(first.enabled(false), second));
    assertThat(findings(gone, "r1", Finding.Kind.MERGEABLE)).isEmpty();
  }

  @Test
  void whatStandsNextToAChangeIsToldAnew() {
    Rule first = rule("r1", Verdict.ALLOW, "", "tcp/1");
    Rule off = rule("off", Verdict.DROP, "", "").enabled(false);
    Rule second = rule("r2", Verdict.ALLOW, "", "tcp/2");
    Rule third = rule("r3", Verdict.ALLOW, "", "tcp/3");
    Rulebase base = base(first, off, second, third);
    LiveAnalysis live = new LiveAnalysis(base);
    assertThat(live.findings()).extracting(Finding::rule).containsExactly("r1", "r2");
    Rule logged = logged(second);
    Rulebase after = new Edit.ReplaceRules(List.of(logged)).apply(base);
    LiveAnalysis.Changed changed = live.update(after, Set.of());
    assertThat(live.findings()).isEmpty(); // they log otherwise
    assertThat(changed.answers()).containsExactlyInAnyOrder("r1", "r2");
    assertThat(changed.reaches()).isEmpty();
    LiveAnalysis.Changed same =
        live.update(new Edit.ReplaceRules(List.of(logged(first))).apply(after), Set.of());
    assertThat(same.answers()).containsExactly("r1");
    assertThat(findings(live, "r1", Finding.Kind.MERGEABLE)).hasSize(1);
  }

  private static Rule logged(Rule rule) {
    return rule.edit().logging(Logging.BOTH).build();
  }
}
