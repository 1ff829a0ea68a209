package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.text.ConnectionLine;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** The standings that people meet, each in the smallest rulebase that shows it. */
class StandingTest {
  private static Criterion<AddressItem> addresses(String... texts) {
    return new Criterion<>(Stream.of(texts).map(AddressItem::parse).toList(), List.of());
  }

  private static Criterion<ServiceItem> services(String... texts) {
    return new Criterion<>(Stream.of(texts).map(ServiceItem::parse).toList(), List.of());
  }

  private static Rule rule(String id, Verdict verdict, String from, String to, String service) {
    return Rule.matchingAll(id, "rule " + id, verdict)
        .matching(
            Criterion.any(),
            from.isEmpty() ? Criterion.any() : addresses(from),
            Criterion.any(),
            to.isEmpty() ? Criterion.any() : addresses(to),
            service.isEmpty() ? Criterion.any() : services(service));
  }

  private static Rulebase base(Rule... rules) {
    return new Rulebase(
        "test", List.of(), List.of(), List.of(), List.of(new Section("s", "S", List.of(rules))));
  }

  private static Standing last(Rule... rules) {
    return new LiveAnalysis(base(rules)).standings().get(rules[rules.length - 1].id());
  }

  private static Standing.Covered covered(Rule... rules) {
    assertThat(last(rules)).isInstanceOf(Standing.Covered.class);
    return (Standing.Covered) last(rules);
  }

  @Test
  void aCatchAllAboveASpecificRefusalShadowsIt() {
    Standing.Covered found =
        covered(
            rule("all", Verdict.ALLOW, "", "", ""),
            rule("refuse", Verdict.DROP, "10.0.0.0/8", "", "tcp/443"));
    assertThat(found.kind()).isEqualTo(Standing.Kind.SHADOWED);
    assertThat(found.causes()).containsExactly("all");
    assertThat(found.decidedBy()).isEqualTo("all");
    assertThat(ConnectionLine.format(found.witness())).contains("from 10.").contains("tcp/443");
  }

  @Test
  void staysRightWhenThereIsNoRoomLeftToTellRulesApart() {
    Rule all = rule("all", Verdict.ALLOW, "", "", "udp");
    LiveAnalysis live = new LiveAnalysis(base(all, rule("part", Verdict.DROP, "", "", "")));
    Set<RuleIndex> laidOut = new HashSet<>();
    for (int length = 33; length <= 128; length++) {
      Rule part =
          rule("part", Verdict.DROP, "2001:db8::/" + length, "", length % 2 == 0 ? "udp" : "");
      Rulebase next = base(all, part);
      assertThat(live.update(next, Set.of("part")).answers()).as("%d", length).contains("part");
      assertThat(live.standing("part").getClass())
          .isEqualTo(new LiveAnalysis(next).standing("part").getClass());
      if (live.standing("part") instanceof Standing.Decides decides) {
        String witness = ConnectionLine.format(decides.witness());
        assertThat(witness).contains("2001:db8:").doesNotContain("udp");
      }
      laidOut.add(live.index());
    }
    assertThat(laidOut).as("96 cuts inside each other").hasSizeBetween(3, 6);
  }

  @Test
  void twoHalvesTogetherTakeAWholeThatNeitherTakes() {
    Standing.Covered found =
        covered(
            rule("low", Verdict.ALLOW, "10.0.0.0/9", "", ""),
            rule("other", Verdict.ALLOW, "172.16.0.0/12", "", ""),
            rule("high", Verdict.ALLOW, "10.128.0.0/9", "", ""),
            rule("whole", Verdict.ALLOW, "10.0.0.0/8", "", "tcp/443"));
    assertThat(found.kind()).isEqualTo(Standing.Kind.REDUNDANT_ABOVE);
    assertThat(found.causes()).containsExactly("low", "high");
    assertThat(found.smallest()).isTrue();
  }

  @Test
  void theSmallestBlameIsFoundWhereALargerOneStandsFirst() {
    Standing.Covered found =
        covered(
            rule("a", Verdict.ALLOW, "10.0.0.0/10", "", ""),
            rule("b", Verdict.ALLOW, "10.64.0.0/10", "", ""),
            rule("c", Verdict.ALLOW, "10.128.0.0/9", "", ""),
            rule("tcp", Verdict.ALLOW, "", "", "tcp"),
            rule("last", Verdict.ALLOW, "10.0.0.0/8", "", "tcp/443"));
    assertThat(found.causes()).containsExactly("tcp");
    assertThat(found.smallest()).isTrue();
  }

  @Test
  void bothFamiliesHaveToBeTakenBeforeAnyIs() {
    Rule v4 = rule("v4", Verdict.ALLOW, "0.0.0.0/0", "", "");
    Rule v6 = rule("v6", Verdict.ALLOW, "", "::/0", "");
    Rule any = rule("any", Verdict.ALLOW, "", "", "tcp/443");
    assertThat(last(v4, any)).isInstanceOf(Standing.Decides.class);
    Standing.Decides decides = (Standing.Decides) last(v4, any);
    assertThat(ConnectionLine.format(decides.witness())).contains(":");
    assertThat(covered(v4, v6, any).causes()).containsExactly("v4", "v6");
  }

  @Test
  void aConnectionNeverMixesFamiliesSoSuchARuleIsEmpty() {
    assertThat(last(rule("mixed", Verdict.ALLOW, "10.0.0.0/8", "2001:db8::/32", "")))
        .isEqualTo(new Standing.Empty());
  }

  @Test
  void anAddressOutsideItsZonesNetworksIsNoConnection() {
    Rule strange =
        Rule.matchingAll("r", "strange", Verdict.ALLOW)
            .matching(
                Criterion.of("piers"),
                addresses("192.0.2.1"),
                Criterion.any(),
                Criterion.any(),
                Criterion.any());
    Rulebase base =
        new Rulebase(
            "test",
            List.of(new Zone("piers", List.of(AddressRange.parse("10.4.0.0/16")), "")),
            List.of(),
            List.of(),
            List.of(new Section("s", "S", List.of(strange))));
    assertThat(new LiveAnalysis(base).standings().get("r")).isEqualTo(new Standing.Empty());
  }

  @Test
  void disabledRulesTakeNothingAndAreNothing() {
    Rule off = rule("off", Verdict.DROP, "", "", "").enabled(false);
    Rule below = rule("below", Verdict.ALLOW, "", "", "tcp/443");
    assertThat(last(off)).isEqualTo(new Standing.PassedOver());
    Standing.Decides decides = (Standing.Decides) last(off, below);
    assertThat(decides.witness()).isNotNull();
  }

  @Test
  void sourcePortsCountToo() {
    Rule low = rule("low", Verdict.ALLOW, "", "", "tcp/443 from 0-1023");
    Rule high = rule("high", Verdict.DROP, "", "", "tcp/443 from 1024-65535");
    Rule web = rule("web", Verdict.ALLOW, "", "", "tcp/443");
    assertThat(last(low, web)).isInstanceOf(Standing.Decides.class);
    assertThat(covered(low, high, web).kind()).isEqualTo(Standing.Kind.SHADOWED);
  }

  @Test
  void movingARuleUpFreesItAndOnlyTheTouchedAreAskedAgain() {
    Rule all = rule("all", Verdict.ALLOW, "", "", "tcp");
    Rule refuse = rule("refuse", Verdict.DROP, "", "", "tcp/25");
    Rule udp = rule("udp", Verdict.ALLOW, "", "", "udp/53");
    LiveAnalysis live = new LiveAnalysis(base(all, udp, refuse));
    assertThat(live.standings().get("refuse")).isInstanceOf(Standing.Covered.class);
    var changed = live.update(base(refuse, all, udp), Set.of("refuse"));
    assertThat(changed.answers()).contains("refuse", "all").doesNotContain("udp");
    assertThat(changed.reaches()).contains("refuse", "all").doesNotContain("udp");
    assertThat(live.standing("refuse")).isInstanceOf(Standing.Decides.class);
    assertThat(live.reach("refuse")).isEqualTo(Reach.ALL);
    assertThat(live.reach("all").uncertainty()).isPositive();
  }

  @Test
  void allAnswersAtOnceAreThoseThatAreGivenOneByOne() {
    Rule refuse = rule("refuse", Verdict.DROP, "", "", "tcp/25");
    Rule all = rule("all", Verdict.ALLOW, "", "", "tcp");
    Rule late = rule("late", Verdict.DROP, "", "", "tcp/80");
    LiveAnalysis atOnce = new LiveAnalysis(base(refuse, all, late));
    LiveAnalysis oneByOne = new LiveAnalysis(base(refuse, all, late));
    atOnce.answerAll();
    List<Finding> findings = new ArrayList<>();
    for (String id : List.of("refuse", "all", "late")) {
      assertThat(atOnce.standing(id)).as(id).isEqualTo(oneByOne.standing(id));
      assertThat(atOnce.reach(id)).as(id).isEqualTo(oneByOne.reach(id));
      findings.addAll(oneByOne.findings(id));
    }
    assertThat(findings).isNotEmpty();
    assertThat(atOnce.findings()).isEqualTo(findings);
    assertThat(new LiveAnalysis(base(refuse, all, late)).findings()).isEqualTo(findings);
  }

  @Test
  void aSampledReachIsNeverToldAsExact() {
    assertThat(Reach.sampled(128, 128).share()).isEqualTo(1);
    assertThat(Reach.sampled(128, 128).uncertainty()).isBetween(0.01, 0.05);
    assertThat(Reach.sampled(64, 128).uncertainty()).isBetween(0.08, 0.09);
  }

  private static List<Finding.Kind> kinds(LiveAnalysis live, String id) {
    return live.findings(id).stream()
        .map(Finding::kind)
        .filter(kind -> kind != Finding.Kind.TOO_BROAD) // which is about the rule alone
        .toList();
  }

  @Test
  void whatARuleAboveHidRevealsACorrelationWhenItGoes() {
    Rule over = rule("over", Verdict.ALLOW, "10.0.0.0/8", "", "");
    Rule refuse = rule("refuse", Verdict.DROP, "10.1.0.0/16", "", "");
    Rule last = rule("last", Verdict.ALLOW, "", "10.2.0.0/16", "");
    LiveAnalysis live = new LiveAnalysis(base(over, refuse, last));
    assertThat(kinds(live, "last")).isEmpty();
    var changed = live.update(base(refuse, last), Set.of("over"));
    assertThat(changed.answers()).contains("refuse", "last");
    assertThat(kinds(live, "last")).containsExactly(Finding.Kind.CORRELATED);
    Finding found = live.findings("last").getFirst();
    assertThat(found.causes()).containsExactly("refuse");
    assertThat(ConnectionLine.format(found.witness())).contains("from 10.1.").contains("to 10.2.");
    live.update(base(over, refuse, last), Set.of("over"));
    assertThat(kinds(live, "last")).isEmpty();
  }

  @Test
  void aCorrelationIsFoundBehindRulesThatSayTheSameOrHoldAll() {
    // Of what the last two refusals share with the last rule, the first one leaves a corner only.
    Rule part = rule("part", Verdict.ALLOW, "", "10.2.0.0/17", "");
    Rule inside = rule("inside", Verdict.DROP, "10.1.0.0/16", "10.2.192.0/18", "");
    Rule refuse = rule("refuse", Verdict.DROP, "10.1.0.0/16", "", "");
    Rule last = rule("last", Verdict.ALLOW, "", "10.2.0.0/16", "");
    LiveAnalysis live = new LiveAnalysis(base(part, inside, refuse, last));
    assertThat(kinds(live, "last"))
        .containsExactly(Finding.Kind.CORRELATED, Finding.Kind.GENERALISED);
    assertThat(live.findings("last").get(0).causes()).containsExactly("refuse");
    assertThat(live.findings("last").get(1).causes()).containsExactly("inside");
    assertThat(live.partners("last", Finding.Kind.CORRELATED).rules()).containsExactly("refuse");
    Rule rest = rule("rest", Verdict.ALLOW, "10.1.0.0/16", "10.2.128.0/18", "");
    live.update(base(part, rest, inside, refuse, last), Set.of("rest"));
    assertThat(kinds(live, "last")).containsExactly(Finding.Kind.GENERALISED);
    assertThat(live.partners("last", Finding.Kind.CORRELATED).rules()).isEmpty();
  }

  private static List<String> keepingOffBelow(Rule... rules) {
    return new LiveAnalysis(base(rules))
        .findings("r").stream()
            .filter(finding -> finding.kind() == Finding.Kind.REDUNDANT_BELOW)
            .flatMap(finding -> finding.causes().stream())
            .toList();
  }

  @Test
  void aRuleIsRedundantBecauseOfNoMoreRulesBelowThanItTakes() {
    Rule rule = rule("r", Verdict.ALLOW, "", "", "tcp/80-89");
    Rule low = rule("low", Verdict.ALLOW, "", "", "tcp/80-84");
    Rule same = rule("same", Verdict.ALLOW, "", "", "tcp/80-89");
    Rule notLow = rule("no-low", Verdict.DROP, "", "", "tcp/80-84");
    Rule notHigh = rule("no-high", Verdict.DROP, "", "", "tcp/85-89");
    assertThat(keepingOffBelow(rule, low, same, notLow, notHigh))
        .as("the one that is first to keep off what is refused of the low ports is not needed")
        .containsExactly("same");
    assertThat(keepingOffBelow(rule, low, notLow, same, notHigh)).containsExactly("low", "same");
  }

  @Test
  void whatStandsAboveARedundantRuleIsNoCause() {
    Rule first = rule("first", Verdict.DROP, "", "", "tcp/80");
    Rule rule = rule("r", Verdict.ALLOW, "", "", "tcp/80-89");
    Rule rest = rule("rest", Verdict.ALLOW, "", "", "tcp/81-89");
    assertThat(keepingOffBelow(first, rule, rest)).containsExactly("rest");
  }
}
