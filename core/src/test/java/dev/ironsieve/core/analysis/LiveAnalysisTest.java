package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.analysis.LiveAnalysis.Changed;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** What an update tells of changes, small and large. */
class LiveAnalysisTest {
  private static final int MANY = 250; // changed rules, more than are followed

  private static final List<Verdict> VERDICTS = List.of(Verdict.ALLOW, Verdict.DROP);

  private static Rule rule(String id, Verdict verdict, int port) {
    return TcpRules.rule(id, verdict, port, port);
  }

  private static Rulebase base(List<AddressObject> objects, List<Rule> rules) {
    return new Rulebase("b", List.of(), objects, List.of(), List.of(new Section("s", "S", rules)));
  }

  /** All answers about each rule; the witnesses of another analysis may differ. */
  private static Map<String, List<Object>> told(LiveAnalysis live) {
    Map<String, List<Object>> out = new HashMap<>();
    for (Rule rule : live.rulebase().rules()) {
      List<Object> all = new ArrayList<>(List.of(live.standing(rule.id()).getClass()));
      live.findings(rule.id()).forEach(f -> all.addAll(List.of(f.kind(), f.causes(), f.words())));
      out.put(rule.id(), all);
    }
    return out;
  }

  private static Set<String> ids(Rulebase base) {
    Set<String> out = new HashSet<>();
    base.rules().forEach(rule -> out.add(rule.id()));
    return out;
  }

  /** Rules on a port each, and behind them one that takes the first again. */
  private static List<Rule> ports(int firstPort) {
    List<Rule> rules = new ArrayList<>();
    for (int i = 0; i < MANY; i++) {
      rules.add(rule("p" + i, Verdict.ALLOW, firstPort + 2 * i));
    }
    rules.add(rule("again", Verdict.ALLOW, 1000));
    rules.add(rule("alone", Verdict.ALLOW, 60_000));
    return rules;
  }

  @Test
  void afterMoreChangesThanAreFollowedAllIsRight() {
    LiveAnalysis live = new LiveAnalysis(base(List.of(), ports(1000)));
    live.findings();
    assertThat(live.standing("again")).isInstanceOf(Standing.Covered.class);
    List<Rule> others = ports(2000);
    others.set(MANY + 1, live.rulebase().rules().get(MANY + 1));
    Rulebase next = base(List.of(), others);
    Changed changed = live.update(next, Set.of());
    assertThat(told(live)).isEqualTo(told(new LiveAnalysis(next)));
    assertThat(live.rulebase()).isSameAs(next);
    assertThat(live.standing("again")).isInstanceOf(Standing.Decides.class);
    assertThat(changed.answers()).contains("again", "p0").doesNotContain("alone");
    assertThat(changed.reaches()).isEqualTo(ids(next));
  }

  @Test
  void manyChangesAreFollowedAsFewAre() {
    for (int changes : new int[] {1, 99, 100, 101, 200, 201}) {
      List<Rule> rules = ports(1000);
      LiveAnalysis live = new LiveAnalysis(base(List.of(), rules));
      live.findings();
      List<Rule> others = new ArrayList<>(rules);
      for (int i = 0; i < changes; i++) {
        others.set(i, rule("p" + i, Verdict.DROP, 1000 + 2 * i));
      }
      Rulebase next = base(List.of(), others);
      Changed changed = live.update(next, Set.of());
      assertThat(told(live)).as("%s", changes).isEqualTo(told(new LiveAnalysis(next)));
      assertThat(changed.answers()).contains("p0", "again").doesNotContain("p249", "alone");
      // The update reports whose reach may change; a rule is then gone and a fresh one
      // there.
      assertThat(changed.reaches().contains("alone")).as("%s", changes).isEqualTo(changes > 100);
    }
  }

  @Test
  void anObjectThatHoldsOthersIsTakenOver() {
    Rule lot =
        rule("lot", Verdict.DROP, 80)
            .matching(
                Criterion.any(),
                Criterion.of(new AddressItem.Named("lot")),
                Criterion.any(),
                Criterion.any(),
                Criterion.any());
    Rule host =
        rule("host", Verdict.ALLOW, 80)
            .matching(
                Criterion.any(),
                Criterion.of(AddressItem.parse("10.0.0.7")),
                Criterion.any(),
                Criterion.any(),
                Criterion.any());
    List<Rule> rules = List.of(lot, host, rule("alone", Verdict.ALLOW, 443));
    LiveAnalysis live = new LiveAnalysis(base(List.of(lot("10.0.0.0/29")), rules));
    live.findings();
    assertThat(live.standing("host")).isInstanceOf(Standing.Covered.class);
    Rulebase next = base(List.of(lot("10.0.0.0/30")), rules);
    Changed changed = live.update(next, Set.of());
    assertThat(live.standing("host")).isInstanceOf(Standing.Decides.class);
    assertThat(told(live)).isEqualTo(told(new LiveAnalysis(next)));
    assertThat(changed.answers()).contains("host").doesNotContain("alone");
    assertThat(changed.reaches()).isEqualTo(ids(next));
  }

  private static AddressObject lot(String member) {
    return new AddressObject("lot", List.of(AddressItem.parse(member)), "");
  }

  private static Rule onSite(String id, Verdict verdict, String site) {
    return Rule.matchingAll(id, "rule " + id, verdict)
        .asking(Map.of(Coordinate.SITE, Criterion.of(site)));
  }

  @Test
  void anotherHostChangesOnlyWhatHangsOnIt() {
    List<Rule> rules =
        new ArrayList<>(
            List.of(
                onSite("quay", Verdict.DROP, "*.quay.example"),
                onSite("web", Verdict.ALLOW, "www.quay.example"),
                onSite("alone", Verdict.ALLOW, "sea.example")));
    LiveAnalysis live = new LiveAnalysis(base(List.of(), rules));
    live.findings();
    assertThat(live.standing("web")).isInstanceOf(Standing.Covered.class);
    rules.set(1, onSite("web", Verdict.ALLOW, "www.pier.example"));
    Rulebase next = base(List.of(), rules);
    Changed changed = live.update(next, Set.of());
    assertThat(live.standing("web")).isInstanceOf(Standing.Decides.class);
    assertThat(told(live)).isEqualTo(told(new LiveAnalysis(next)));
    assertThat(changed.answers()).contains("web").doesNotContain("alone");
    assertThat(changed.reaches()).isEqualTo(ids(next));
  }

  @Test
  void whereManyRulesSayOtherHostsAllIsRight() {
    List<Rule> rules = new ArrayList<>();
    List<Rule> others = new ArrayList<>();
    for (int i : IntStream.range(0, MANY).toArray()) {
      rules.add(onSite("s" + i, Verdict.ALLOW, "h%d.quay.example".formatted(i)));
      others.add(onSite("s" + i, Verdict.ALLOW, "h%d.pier.example".formatted(i)));
    }
    Rule last = onSite("last", Verdict.DROP, "h7.pier.example");
    rules.add(last);
    others.add(last);
    LiveAnalysis live = new LiveAnalysis(base(List.of(), rules));
    live.findings();
    assertThat(live.standing("last")).isInstanceOf(Standing.Decides.class);
    Rulebase next = base(List.of(), others);
    live.update(next, Set.of());
    assertThat(live.standing("last")).isInstanceOf(Standing.Covered.class);
    assertThat(told(live)).isEqualTo(told(new LiveAnalysis(next)));
  }

  @Test
  void rulesBetweenWhichOneOfSeveralWentMayBeMerged() {
    List<Rule> kept =
        List.of(
            rule("k", Verdict.ALLOW, 5),
            rule("l", Verdict.REJECT, 6),
            rule("m", Verdict.DROP, 7),
            rule("a", Verdict.ALLOW, 80),
            rule("b", Verdict.ALLOW, 81));
    List<Rule> all = new ArrayList<>(kept);
    all.add(4, rule("between", Verdict.DROP, 2));
    for (int i = 0; i < 3; i++) {
      all.add(0, rule("x" + i, Verdict.DROP, 3 + 6 * i));
    }
    LiveAnalysis live = new LiveAnalysis(base(List.of(), all));
    assertThat(live.findings("a")).noneMatch(f -> f.kind() == Finding.Kind.MERGEABLE);
    Changed changed = live.update(base(List.of(), kept), Set.of());
    assertThat(live.findings("a")).anyMatch(f -> f.kind() == Finding.Kind.MERGEABLE);
    assertThat(changed.answers()).contains("a");
    live.update(base(List.of(), all), Set.of());
    assertThat(live.findings("a")).noneMatch(f -> f.kind() == Finding.Kind.MERGEABLE);
  }

  private static Rule from(String id, Verdict verdict, String addresses, int port) {
    Rule all = rule(id, verdict, port);
    return all.matching(
        all.fromZones(),
        Criterion.of(AddressItem.parse(addresses)),
        all.toZones(),
        all.toAddresses(),
        all.services());
  }

  private static Connection example(LiveAnalysis live, String id) {
    return ((Standing.Decides) live.standing(id)).witness();
  }

  /** Which rule decides a connection. */
  private static String decider(LiveAnalysis live, Connection connection) {
    RuleIndex index = live.index();
    return index.rule(index.first(index.space().point(connection))).id();
  }

  @Test
  void anExampleThatANewRuleTakesGivesWayToAnother() {
    List<Rule> rules =
        new ArrayList<>(
            List.of(
                from("quay", Verdict.ALLOW, "10.0.0.0/8", 80),
                from("pier", Verdict.DROP, "10.0.0.0/8", 443),
                rule("both", Verdict.DROP, 80)));
    LiveAnalysis live = new LiveAnalysis(base(List.of(), rules));
    live.findings();
    for (int i = 0; i < 12; i++) {
      String address = example(live, "quay").from().address().toString();
      rules.add(0, from("taken" + i, Verdict.DROP, address, 80));
      Changed changed = live.update(base(List.of(), List.copyOf(rules)), Set.of());
      assertThat(changed.answers()).contains("quay").doesNotContain("pier");
      for (Rule rule : rules) {
        assertThat(decider(live, example(live, rule.id()))).isEqualTo(rule.id());
      }
      assertThat(live.findings("both"))
          .filteredOn(finding -> finding.kind() == Finding.Kind.GENERALISED)
          .singleElement()
          .satisfies(finding -> assertThat(decider(live, finding.witness())).isEqualTo("quay"));
    }
  }

  @Test
  void anExampleThatANewRuleTakesGivesWayAlsoWhereHostsComeAndGo() {
    List<Rule> rules = new ArrayList<>(List.of(from("quay", Verdict.ALLOW, "10.0.0.0/8", 80)));
    LiveAnalysis live = new LiveAnalysis(base(List.of(), rules));
    live.findings();
    for (int i = 0; i < 12; i++) {
      String address = example(live, "quay").from().address().toString();
      rules.add(0, from("taken" + i, Verdict.DROP, address, 80));
      rules.removeIf(rule -> rule.id().startsWith("host"));
      rules.add(0, onSite("host" + i, Verdict.DROP, "h%d.quay.example".formatted(i)));
      live.update(base(List.of(), List.copyOf(rules)), Set.of());
      assertThat(decider(live, example(live, "quay"))).isEqualTo("quay");
    }
  }

  @Test
  void aRuleOfWhichTheSameIsToldAsBeforeIsNotChanged() {
    List<Rule> rules =
        new ArrayList<>(
            List.of(rule("off", Verdict.DROP, 5).enabled(false), rule("on", Verdict.ALLOW, 80)));
    LiveAnalysis live = new LiveAnalysis(base(List.of(), rules));
    live.findings();
    rules.set(0, rule("off", Verdict.DROP, 7).enabled(false));
    assertThat(live.update(base(List.of(), List.copyOf(rules)), Set.of()).answers()).isEmpty();
    rules.set(0, rule("off", Verdict.DROP, 7));
    assertThat(live.update(base(List.of(), List.copyOf(rules)), Set.of()).answers())
        .containsExactly("off");
  }

  @Test
  void rulesBetweenWhichOneWentWhileAnotherSaysAnotherHostMayBeMerged() {
    List<Rule> rules =
        new ArrayList<>(
            List.of(
                onSite("host", Verdict.DROP, "www.quay.example"),
                rule("a", Verdict.ALLOW, 80),
                onSite("between", Verdict.DROP, "sea.example"),
                rule("b", Verdict.ALLOW, 81)));
    LiveAnalysis live = new LiveAnalysis(base(List.of(), rules));
    assertThat(live.findings("a")).noneMatch(f -> f.kind() == Finding.Kind.MERGEABLE);
    rules.set(0, onSite("host", Verdict.DROP, "www.pier.example"));
    rules.remove(2);
    Rulebase next = base(List.of(), rules);
    assertThat(live.update(next, Set.of()).answers()).contains("a");
    assertThat(live.findings("a")).anyMatch(f -> f.kind() == Finding.Kind.MERGEABLE);
    assertThat(told(live)).isEqualTo(told(new LiveAnalysis(next)));
  }

  private static Rule some(String id, Random random) {
    int first = random.nextInt(8);
    Rule all = Rule.matchingAll(id, "rule " + id, VERDICTS.get(random.nextInt(VERDICTS.size())));
    return all.matching(
            all.fromZones(),
            random.nextInt(3) > 0
                ? Criterion.any()
                : Criterion.of(AddressItem.parse("10.0.%d.0/24".formatted(random.nextInt(2)))),
            all.toZones(),
            all.toAddresses(),
            Criterion.<ServiceItem>of(ServiceLiteral.ports(6, first, first + random.nextInt(5))))
        .enabled(random.nextInt(8) > 0);
  }

  /** What holds of each rule, whichever rules are named for it where there is a choice. */
  private static Map<String, List<Object>> kinds(LiveAnalysis live) {
    Map<String, List<Object>> out = new HashMap<>();
    for (Rule rule : live.rulebase().rules()) {
      List<Object> all = new ArrayList<>(List.of(live.standing(rule.id()).getClass()));
      live.findings(rule.id()).forEach(f -> all.add(f.kind()));
      out.put(rule.id(), all);
    }
    return out;
  }

  @Test
  void severalRulesThatGoComeAndMoveAtOnceAreFollowed() {
    Set<Object> seen = new HashSet<>();
    for (int round = 0; round < Rounds.of(60); round++) {
      Random random = new Random(round);
      List<Rule> rules = new ArrayList<>();
      for (int i = 0; i < 9; i++) {
        rules.add(some("r" + i, random));
      }
      LiveAnalysis live = new LiveAnalysis(base(List.of(), rules));
      live.findings();
      for (int step = 0; step < 25; step++) {
        Set<String> moved = new HashSet<>();
        for (int change = random.nextInt(5); change >= 0; change--) {
          int at = random.nextInt(rules.size());
          switch (rules.size() < 5 ? 0 : rules.size() > 14 ? 1 : random.nextInt(4)) {
            case 0 -> rules.add(at, some("s" + step + "-" + change, random));
            case 1 -> rules.remove(at);
            case 2 -> rules.set(at, some(rules.get(at).id(), random));
            default -> {
              Rule rule = rules.remove(at);
              moved.add(rule.id());
              rules.add(random.nextInt(rules.size() + 1), rule);
            }
          }
        }
        Map<String, List<Object>> before = kinds(live);
        Rulebase next = base(List.of(), List.copyOf(rules));
        Set<String> told = live.update(next, moved).answers();
        Map<String, List<Object>> now = kinds(live);
        assertThat(now)
            .as("round %d, step %d: %s", round, step, rules)
            .isEqualTo(kinds(new LiveAnalysis(next)));
        now.forEach(
            (id, kinds) -> {
              seen.addAll(kinds);
              if (!kinds.equals(before.get(id))) {
                assertThat(told).contains(id);
              }
            });
      }
    }
    assertThat(seen)
        .contains(
            Finding.Kind.SHADOWED,
            Finding.Kind.REDUNDANT_ABOVE,
            Finding.Kind.REDUNDANT_BELOW,
            Finding.Kind.CORRELATED,
            Finding.Kind.GENERALISED);
  }
}
