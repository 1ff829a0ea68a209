package dev.ironsieve.core.repair;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.analysis.Finding;
import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.Touched;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SlowRules;
import dev.ironsieve.core.twin.SmallWorld;
import dev.ironsieve.core.twin.Tried;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Laws: a repair removes its finding, and changes exactly the verdicts that it says. */
class RepairsTest {
  private static final List<Connection> ALL = SmallWorld.connections();

  @Test
  void removeTheirFindingAndChangeExactlyWhatTheySay() {
    Map<Finding.Kind, Integer> kinds = new EnumMap<>(Finding.Kind.class);
    for (int seed = 0; seed < Rounds.of(160); seed++) {
      Rulebase base = withTwins(new SmallWorld(seed).rulebase(7));
      LiveAnalysis analysis = new LiveAnalysis(base);
      Tried tried = new Tried(base, ALL);
      for (Finding finding : analysis.findings()) {
        for (Repair repair : Repairs.of(finding, analysis)) {
          kinds.merge(finding.kind(), 1, Integer::sum);
          check(
              "seed " + seed + ", " + finding + ", " + repair.summary(),
              base,
              tried,
              finding,
              repair);
        }
      }
    }
    assertThat(kinds.keySet())
        .containsExactlyInAnyOrder(
            Finding.Kind.EMPTY,
            Finding.Kind.SHADOWED,
            Finding.Kind.REDUNDANT_ABOVE,
            Finding.Kind.REDUNDANT_BELOW,
            Finding.Kind.CORRELATED,
            Finding.Kind.MERGEABLE);
  }

  private static Rule rule(String id, Verdict verdict, String... services) {
    Rule any = Rule.matchingAll(id, id, verdict);
    return any.matching(
        any.fromZones(),
        any.fromAddresses(),
        any.toZones(),
        any.toAddresses(),
        Criterion.of(Arrays.stream(services).map(ServiceItem::parse).toArray(ServiceItem[]::new)));
  }

  /** What can be done about one kind of finding of a rule. */
  private static List<String> summary(String id, Finding.Kind kind, Rule... rules) {
    Rulebase base =
        new Rulebase(
            "b", List.of(), List.of(), List.of(), List.of(new Section("s", "S", List.of(rules))));
    LiveAnalysis analysis = new LiveAnalysis(base);
    return analysis.findings(id).stream()
        .filter(finding -> finding.kind() == kind)
        .flatMap(finding -> Repairs.of(finding, analysis).stream())
        .map(Repair::summary)
        .toList();
  }

  @Test
  void eachFindingHasItsOwnWays() {
    Rule all = rule("all", Verdict.ALLOW, "tcp");
    Rule web = rule("web", Verdict.DROP, "tcp/443");
    assertThat(summary("web", Finding.Kind.SHADOWED, all, web))
        .containsExactly("Delete \"web\"", "Move \"web\" above \"all\"");
    Rule low = rule("low", Verdict.DROP, "tcp/1-10");
    Rule high = rule("high", Verdict.ALLOW, "tcp/5-20");
    assertThat(summary("high", Finding.Kind.CORRELATED, low, high))
        .containsExactly("Move \"high\" above \"low\"");
    Rule same = rule("same", Verdict.ALLOW, "tcp/80");
    assertThat(summary("same", Finding.Kind.REDUNDANT_ABOVE, all, same))
        .containsExactly("Delete \"same\"");
    assertThat(summary("same", Finding.Kind.REDUNDANT_BELOW, same, all))
        .containsExactly("Delete \"same\"");
    Rule udp = rule("udp", Verdict.ALLOW, "udp/80");
    assertThat(summary("same", Finding.Kind.MERGEABLE, same, udp))
        .containsExactly("Make \"same\" and \"udp\" one rule");
    assertThat(summary("all", Finding.Kind.GENERALISED, web, all)).isEmpty();
  }

  @Test
  void aRuleThatIsTooBroadIsNarrowedToWhatItIsUsedFor() {
    Rule wide = Rule.matchingAll("wide", "wide", Verdict.ALLOW);
    Rulebase base =
        new Rulebase(
            "b",
            List.of(new Zone("quay", List.of(), ""), new Zone("sea", List.of(), "")),
            List.of(),
            List.of(),
            List.of(new Section("s", "S", List.of(wide))));
    LiveAnalysis analysis = new LiveAnalysis(base);
    Finding broad =
        analysis.findings("wide").stream()
            .filter(finding -> finding.kind() == Finding.Kind.TOO_BROAD)
            .findFirst()
            .orElseThrow();
    assertThat(Repairs.of(broad, analysis)).isEmpty();
    assertThat(Repairs.narrowing(broad, analysis, List.of())).isEmpty();
    List<Connection> seen =
        List.of(
            ConnectionLine.parse("from 10.0.0.1 in quay to 10.0.0.2 in sea tcp/443", base),
            ConnectionLine.parse("from 10.0.0.1 in quay to 10.0.0.3 in sea udp/53", base));
    Repair repair = Repairs.narrowing(broad, analysis, seen).getFirst();
    assertThat(repair.summary()).isEqualTo("Narrow \"wide\" to the use of it: tcp/443, udp/53");
    Rulebase after = repair.edit().apply(base);
    Rule narrow = after.rules().getFirst();
    assertThat(narrow.fromZones()).isEqualTo(Criterion.of("quay"));
    assertThat(narrow.toZones()).isEqualTo(Criterion.of("sea"));
    assertThat(new LiveAnalysis(after).findings("wide"))
        .noneMatch(finding -> finding.kind() == Finding.Kind.TOO_BROAD);
    SlowRules slow = new SlowRules(after);
    assertThat(seen).allMatch(connection -> slow.decide(connection).isPresent());
    List<Connection> many = new ArrayList<>();
    for (int port = 1; port < 60; port += 2) {
      many.add(ConnectionLine.parse("from in quay to in sea tcp/" + port, base));
    }
    assertThat(Repairs.narrowing(broad, analysis, many)).isEmpty();
  }

  /** A copy of the second rule that asks for one other thing, so that some can be merged. */
  private static Rulebase withTwins(Rulebase base) {
    List<Rule> rules = new ArrayList<>(base.rules());
    if (rules.size() > 2) {
      Rule one = rules.get(1);
      Rule other = rules.get(2);
      rules.add(
          2,
          new Rule(
              "twin",
              "twin",
              true,
              one.fromZones(),
              one.fromAddresses(),
              one.toZones(),
              one.toAddresses(),
              other.services(),
              one.verdict(),
              one.logging(),
              ""));
    }
    return base.withSections(List.of(new Section("s", "S", rules)));
  }

  private static void check(String as, Rulebase base, Tried tried, Finding finding, Repair repair) {
    Rulebase after = repair.edit().apply(base);
    Verdict[] before = tried.verdicts();
    Verdict[] verdicts = tried.on(after).verdicts();
    for (int p = 0; p < verdicts.length; p++) {
      assertThat(repair.effect().part(ALL.get(p)).isPresent())
          .as("%s at %s", as, ALL.get(p))
          .isEqualTo(verdicts[p] != before[p]);
    }
    if (repair.edit() instanceof Edit.DeleteRules || finding.kind() == Finding.Kind.MERGEABLE) {
      assertThat(repair.effect().isEmpty()).as(as).isTrue();
    }
    LiveAnalysis live = new LiveAnalysis(base);
    live.update(after, Touched.ruleIds(repair.edit().touched(base)));
    boolean stillThere = after.rules().stream().anyMatch(rule -> rule.id().equals(finding.rule()));
    if (!stillThere) {
      return;
    }
    switch (finding.kind()) {
      case CORRELATED ->
          assertThat(live.partners(finding.rule(), Finding.Kind.CORRELATED).rules())
              .as(as)
              .doesNotContain(finding.causes().getFirst());
      case MERGEABLE ->
          assertThat(after.rules())
              .as(as)
              .noneMatch(r -> r.id().equals(finding.causes().getFirst()));
      default ->
          assertThat(live.findings(finding.rule()))
              .as(as)
              .noneMatch(found -> found.kind() == finding.kind());
    }
  }
}
