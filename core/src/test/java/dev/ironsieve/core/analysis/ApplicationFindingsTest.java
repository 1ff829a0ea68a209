package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.repair.Repair;
import dev.ironsieve.core.repair.Repairs;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.text.ConnectionLine;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Usual ports, needs and features that do not show, by example. */
class ApplicationFindingsTest {
  private static final Vocabulary APPLICATIONS =
      new Vocabulary(
          Coordinate.APPLICATION,
          "e1",
          List.of(
              "unidentified",
              "Reel: view",
              "Reel: upload",
              "Reel: other use",
              "Reel sign-in",
              "Mail",
              "Tide: read",
              "Tide: write",
              "Tide: list",
              "Tide: erase",
              "Tide: move"),
          List.of(
              new Vocabulary.Term("Reel", IntSet.range(1, 3)),
              new Vocabulary.Term("Tide", IntSet.range(6, 10))),
          List.of(
              new ApplicationFact(
                  "Reel",
                  IntSet.range(1, 3),
                  List.of(ServiceLiteral.parse("tcp/443"), ServiceLiteral.parse("udp/443")),
                  List.of("*.reel.example"),
                  List.of("Reel sign-in"),
                  List.of(),
                  IntSet.range(2, 3)),
              new ApplicationFact(
                  "Reel sign-in",
                  IntSet.of(4),
                  List.of(ServiceLiteral.parse("tcp/443")),
                  List.of("sign-in.reel.example", "*.accounts.example"),
                  List.of(),
                  List.of(),
                  IntSet.EMPTY),
              new ApplicationFact(
                  "Tide",
                  IntSet.range(6, 10),
                  List.of(ServiceLiteral.parse("tcp/8443")),
                  List.of("*.tide.example"),
                  List.of("Reel sign-in", "Mail"),
                  List.of(),
                  IntSet.range(6, 10)),
              new ApplicationFact(
                  "Mail",
                  IntSet.of(5),
                  List.of(ServiceLiteral.parse("tcp/993")),
                  List.of(),
                  List.of(),
                  List.of(),
                  IntSet.EMPTY)));

  private static Rule rule(String id, Verdict verdict, String services, String... applications) {
    Rule all = Rule.matchingAll(id, "rule " + id, verdict);
    Criterion<ServiceItem> asked =
        services.isEmpty() ? Criterion.any() : Criterion.of(ServiceItem.parse(services));
    return all.matching(
            all.fromZones(), all.fromAddresses(), all.toZones(), all.toAddresses(), asked)
        .asking(Map.of(Coordinate.APPLICATION, Criterion.of(applications)));
  }

  private static Rule opened(Rule rule) {
    return rule.leaving(Opening.OPENED);
  }

  private static Rulebase base(Rule... rules) {
    return new Rulebase(
        "b",
        List.of(),
        List.of(),
        List.of(),
        List.of(APPLICATIONS),
        List.of(new Section("s", "S", List.of(rules))));
  }

  private static List<String> says(Rulebase base, String rule, Finding.Kind kind) {
    return new LiveAnalysis(base)
        .findings(rule).stream().filter(f -> f.kind() == kind).map(Finding::words).toList();
  }

  @ParameterizedTest
  @CsvSource({
    "tcp/443 application Reel: view, allow",
    "udp/443 application Reel: upload, allow",
    "tcp/993 application Reel: view, drop",
    "tcp/993 application Mail, allow",
    "tcp/443 application Mail, drop",
    "tcp/443 application unidentified, drop",
    "tcp/443, drop", // not known which
  })
  void usualPortsAreThoseOfWhicheverApplicationItIs(String line, String verdict) {
    Rulebase base = base(rule("r1", Verdict.ALLOW, "usual ports"));
    Connection connection =
        ConnectionLine.parse("from 10.0.0.1 to 192.0.2.1 " + line + " from port 50000", base);
    Matcher matcher = new Matcher(base);
    boolean allowed = matcher.decide(connection).isPresent();
    assertThat(allowed).isEqualTo(verdict.equals("allow"));
    assertThat(matcher.trace(connection).decided() != null).isEqualTo(allowed);
  }

  @Test
  void usualPortsNeedACatalogueAndARule() {
    Rule asks = rule("r1", Verdict.ALLOW, "usual ports");
    assertThatThrownBy(
            () ->
                new Rulebase(
                    "b",
                    List.of(),
                    List.of(),
                    List.of(),
                    List.of(
                        new Vocabulary(
                            Coordinate.APPLICATION, "e0", APPLICATIONS.values(), List.of())),
                    List.of(new Section("s", "S", List.of(asks)))))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("usual ports");
    assertThatThrownBy(
            () -> new ServiceObject("web", List.of(ServiceItem.parse("Usual Ports")), ""))
        .isInstanceOf(InvalidModel.class);
    assertThatThrownBy(
            () -> new ServiceObject("usual ports", List.of(ServiceItem.parse("tcp/1")), ""))
        .isInstanceOf(InvalidModel.class);
  }

  @Test
  void aRuleOnUsualPortsIsShadowedByOneThatTakesThem() {
    Rulebase base =
        base(
            rule("r1", Verdict.DROP, "tcp/443"),
            rule("r2", Verdict.DROP, "udp/443"),
            rule("r3", Verdict.ALLOW, "usual ports", "Reel"));
    Finding shadowed = new LiveAnalysis(base).findings("r3").getFirst();
    assertThat(shadowed.kind()).isEqualTo(Finding.Kind.SHADOWED);
    assertThat(shadowed.causes()).containsExactly("r1", "r2");
  }

  @Test
  void aNeedIsUnmetUntilSomeRuleLetsItThroughWhereItListens() {
    Rule reel = rule("r2", Verdict.ALLOW, "usual ports", "Reel");
    assertThat(says(base(reel), "r2", Finding.Kind.UNMET_NEED))
        .containsExactly("Reel needs Reel sign-in");
    Rule elsewhere = rule("r1", Verdict.ALLOW, "tcp/993", "Reel sign-in");
    assertThat(says(base(elsewhere, reel), "r2", Finding.Kind.UNMET_NEED)).hasSize(1);
    Rule there = rule("r3", Verdict.CAUTION, "tcp/443", "Reel sign-in");
    assertThat(says(base(reel, there), "r2", Finding.Kind.UNMET_NEED)).isEmpty();
    Rule refusing = rule("r1", Verdict.DROP, "", "Reel sign-in");
    Finding unmet =
        new LiveAnalysis(base(refusing, reel, there))
            .findings("r2").stream()
                .filter(f -> f.kind() == Finding.Kind.UNMET_NEED)
                .findFirst()
                .orElseThrow();
    assertThat(unmet.causes()).containsExactly("r1");
    assertThat(unmet.witness().terms().get(Coordinate.APPLICATION)).startsWith("Reel: ");
  }

  @ParameterizedTest
  @CsvSource({
    "*.weather.example, true", "*.reel.example, false", "sign-in.reel.example, false",
    "www.reel.example, true", "*.example, false", "eu.accounts.example, false"
  })
  void aNeedIsMetOnlyWhereTheHostsOfWhatIsNeededAre(String site, boolean unmet) {
    Rule reel = rule("r1", Verdict.ALLOW, "usual ports", "Reel");
    Rule all = Rule.matchingAll("r2", "some sites", Verdict.ALLOW);
    Rule sites = all.asking(Map.of(Coordinate.SITE, Criterion.of(site)));
    assertThat(says(base(reel, sites), "r1", Finding.Kind.UNMET_NEED)).hasSize(unmet ? 1 : 0);
  }

  @Test
  void whatShowsOnlyInOpenedConnectionsIsTold() {
    Rule upload = rule("r1", Verdict.DROP, "", "Reel: upload");
    assertThat(says(base(upload), "r1", Finding.Kind.UNSEEN_FEATURE))
        .containsExactly("Reel: upload");
    assertThat(says(base(opened(upload)), "r1", Finding.Kind.UNSEEN_FEATURE)).isEmpty();
    assertThat(says(base(rule("r1", Verdict.DROP, "", "Reel")), "r1", Finding.Kind.UNSEEN_FEATURE))
        .isEmpty();
    assertThat(
            says(
                base(rule("r1", Verdict.DROP, "", "Reel: view")),
                "r1",
                Finding.Kind.UNSEEN_FEATURE))
        .isEmpty();
  }

  @Test
  void openingMendsWhatDoesNotShow() {
    Rulebase base = base(rule("r1", Verdict.DROP, "", "Reel: upload"));
    LiveAnalysis live = new LiveAnalysis(base);
    Finding unseen =
        live.findings("r1").stream()
            .filter(finding -> finding.kind() == Finding.Kind.UNSEEN_FEATURE)
            .findFirst()
            .orElseThrow();
    List<Repair> repairs = Repairs.of(unseen, live);
    assertThat(repairs).hasSize(1);
    assertThat(repairs.getFirst().effect().isEmpty()).isTrue();
    Rulebase after = repairs.getFirst().edit().apply(base);
    assertThat(after.rules()).containsExactly(opened(base.rules().getFirst()));
    assertThat(says(after, "r1", Finding.Kind.UNSEEN_FEATURE)).isEmpty();
  }

  @Test
  void theKindOfAFileDoesNotShowInSealedConnections() {
    Rule programs =
        Rule.matchingAll("r1", "programs", Verdict.DROP)
            .asking(Map.of(Coordinate.FILE_KIND, Criterion.of("programs")));
    assertThat(says(base(programs), "r1", Finding.Kind.UNSEEN_FEATURE))
        .containsExactly("the kind of file");
    assertThat(says(base(opened(programs)), "r1", Finding.Kind.UNSEEN_FEATURE)).isEmpty();
    Rule uploads =
        programs.asking(
            Map.of(
                Coordinate.FILE_KIND, Criterion.of("programs"),
                Coordinate.APPLICATION, Criterion.of("Reel: upload")));
    assertThat(says(base(uploads), "r1", Finding.Kind.UNSEEN_FEATURE))
        .containsExactly("Reel: upload and the kind of file");
    Rule mail =
        programs.asking(
            Map.of(
                Coordinate.FILE_KIND, Criterion.of("programs"),
                Coordinate.APPLICATION, Criterion.of("Mail")));
    assertThat(says(base(mail), "r1", Finding.Kind.UNSEEN_FEATURE)).isEmpty();
  }

  @Test
  void kindsOfFilesAreKnownOnceARuleSpeaksOfThem() {
    Rulebase none = base(rule("r1", Verdict.ALLOW, "", "Mail"));
    assertThat(none.vocabulary(Coordinate.FILE_KIND)).isEmpty();
    Rule keys =
        none.rules().getFirst().asking(Map.of(Coordinate.FILE_KIND, Criterion.of("private key")));
    LiveAnalysis live = new LiveAnalysis(none);
    Rulebase some = new Edit.ReplaceRules(List.of(keys)).apply(none);
    live.update(some, Set.of("r1"));
    assertThat(some.vocabulary(Coordinate.FILE_KIND)).isPresent();
    assertThat(new Matcher(some).decide(ConnectionLine.parse("file kind private key", some)))
        .isPresent();
    assertThat(new Matcher(some).decide(ConnectionLine.parse("file kind PDF", some))).isEmpty();
    assertThatThrownBy(
            () ->
                new Edit.ReplaceRules(
                        List.of(keys.asking(Map.of(Coordinate.FILE_KIND, Criterion.of("papers")))))
                    .apply(some))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("file kind");
  }

  private static Rule from(Rule rule, String address) {
    return rule.matching(
        rule.fromZones(),
        Criterion.of(AddressItem.parse(address)),
        rule.toZones(),
        rule.toAddresses(),
        rule.services());
  }

  private static List<Finding> unmet(Rulebase base, String rule) {
    return new LiveAnalysis(base)
        .findings(rule).stream().filter(f -> f.kind() == Finding.Kind.UNMET_NEED).toList();
  }

  @Test
  void needsOfSeveralApplicationsAreToldTogether() {
    Rule both = rule("r2", Verdict.ALLOW, "", "Reel", "Tide");
    assertThat(says(base(both), "r2", Finding.Kind.UNMET_NEED))
        .containsExactlyInAnyOrder("Reel, Tide need Reel sign-in", "Tide needs Mail");
    Rule mail = rule("r3", Verdict.ALLOW, "", "Mail");
    assertThat(says(base(both, mail), "r2", Finding.Kind.UNMET_NEED))
        .containsExactly("Reel, Tide need Reel sign-in");
    Rule noTide = rule("r1", Verdict.DROP, "", "Tide");
    assertThat(says(base(noTide, both, mail), "r2", Finding.Kind.UNMET_NEED))
        .containsExactly("Reel needs Reel sign-in");
    Rule someTide = from(noTide, "10.0.0.0/8"); // others still need it
    assertThat(says(base(someTide, both, mail), "r2", Finding.Kind.UNMET_NEED))
        .containsExactly("Reel, Tide need Reel sign-in");
  }

  @Test
  void allWhoKeepOffWhatIsNeededAreToldAndNobodyElse() {
    Rule reel = from(rule("r4", Verdict.ALLOW, "", "Reel"), "10.0.0.0/8");
    Rule signIn = rule("r5", Verdict.ALLOW, "tcp/443", "Reel sign-in");
    Rule here = from(rule("r1", Verdict.DROP, "tcp/1-442", "Reel sign-in"), "10.0.0.0/8");
    Rule low = from(rule("r2", Verdict.DROP, "tcp/400-443", "Reel sign-in"), "10.0.0.0/9");
    Rule high = from(rule("r3", Verdict.DROP, "tcp/443-500", "Reel sign-in"), "10.128.0.0/9");
    assertThat(unmet(base(here, reel, signIn), "r4")).isEmpty();
    Finding one = unmet(base(here, low, reel, signIn), "r4").getFirst();
    assertThat(one.causes()).containsExactly("r2");
    assertThat(one.smallest()).isTrue();
    assertThat(one.witness().from().address().toString()).startsWith("10.");
    assertThat(one.decidedBy()).isEqualTo("r4");
    assertThat(unmet(base(here, high, reel, signIn), "r4"))
        .extracting(Finding::causes)
        .containsExactly(List.of("r3"));
    // For one source at 10.x it takes both halves of the destinations, not of the sources.
    Rule toLow = to(rule("r2", Verdict.DROP, "", "Reel sign-in"), "0.0.0.0/1");
    Rule toHigh = to(rule("r3", Verdict.DROP, "", "Reel sign-in"), "128.0.0.0/1");
    Finding two = unmet(base(here, toLow, toHigh, reel, signIn), "r4").getFirst();
    assertThat(two.causes()).containsExactly("r2", "r3");
    assertThat(two.smallest()).isFalse();
    Rule all = rule("r0", Verdict.DROP, "", "Reel sign-in");
    assertThat(unmet(base(toLow, toHigh, all, reel, signIn), "r4").getFirst().causes())
        .isIn(List.of("r2", "r3"), List.of("r0"));
  }

  @Test
  void allowingWhatIsNeededMeetsTheNeed() {
    Rule reel = from(rule("r2", Verdict.ALLOW, "usual ports", "Reel"), "10.0.0.0/8");
    assertThat(mended(base(reel)))
        .containsExactly(
            "Allow Reel sign-in in a rule above \"rule r2\"", "Add Reel sign-in to \"rule r2\"");
    Rule refusing = rule("r1", Verdict.DROP, "", "Reel sign-in");
    assertThat(mended(base(refusing, reel)))
        .containsExactly("Allow Reel sign-in in a rule above \"rule r1\"");
    Rule low = from(rule("r0", Verdict.DROP, "", "Reel sign-in"), "10.0.0.0/9");
    Rule served = from(rule("r3", Verdict.ALLOW, "", "Reel sign-in"), "10.0.0.0/8");
    assertThat(mended(base(low, refusing, reel, served)))
        .containsExactly("Allow Reel sign-in in a rule above \"rule r0\"");
    Rule otherPorts = rule("r2", Verdict.ALLOW, "tcp/443", "Reel");
    assertThat(mended(base(otherPorts)))
        .containsExactly("Allow Reel sign-in in a rule above \"rule r2\"");
  }

  /** What the repairs of the one unmet need of a rulebase say; each of them is seen to meet it. */
  private static List<String> mended(Rulebase base) {
    LiveAnalysis live = new LiveAnalysis(base);
    List<Repair> repairs = Repairs.of(unmet(base, "r2").getFirst(), live);
    assertThat(repairs)
        .allSatisfy(repair -> assertThat(unmet(repair.edit().apply(base), "r2")).isEmpty());
    return repairs.stream().map(Repair::summary).toList();
  }

  @Test
  void whatStandsBelowWhatWouldServeKeepsItNotOff() {
    Rule reel = from(rule("r1", Verdict.ALLOW, "", "Reel"), "10.0.0.0/8");
    Rule offLow = to(rule("r2", Verdict.DROP, "", "Reel sign-in"), "0.0.0.0/2");
    Rule low = to(rule("r3", Verdict.ALLOW, "", "Reel sign-in"), "0.0.0.0/2");
    Rule offAll = to(rule("r4", Verdict.DROP, "", "Reel sign-in"), "0.0.0.0/1");
    Rule all = to(rule("r5", Verdict.ALLOW, "", "Reel sign-in"), "0.0.0.0/1");
    assertThat(unmet(base(reel, offLow, low, offAll, all), "r1"))
        .extracting(Finding::causes)
        .containsExactly(List.of("r2", "r4"));
    assertThat(unmet(base(reel, low, offAll, all), "r1")).isEmpty();
  }

  @Test
  void aBudgetThatRunsOutLeavesANeedOpen() {
    Rule reel = from(rule("r1", Verdict.ALLOW, "", "Reel", "Tide"), "10.0.0.0/8");
    Rule toLow = to(rule("r2", Verdict.DROP, "", "Reel sign-in"), "0.0.0.0/1");
    Rule toHigh = to(rule("r3", Verdict.DROP, "", "Reel sign-in"), "128.0.0.0/1");
    Rule signIn = rule("r4", Verdict.ALLOW, "", "Reel sign-in");
    Rule notHere = from(rule("r5", Verdict.DROP, "", "Mail"), "10.0.0.0/9");
    Rule mail = rule("r6", Verdict.ALLOW, "", "Mail");
    Rulebase base = base(reel, toLow, toHigh, signIn, notHere, mail);
    List<String> all = List.of("Reel, Tide need Reel sign-in", "Tide needs Mail");
    assertThat(says(base, "r1", Finding.Kind.UNMET_NEED)).containsExactlyInAnyOrderElementsOf(all);
    Set<Integer> found = new HashSet<>();
    for (long steps = 0; steps < 80; steps++) {
      List<Finding> findings = new LiveAnalysis(base, steps).findings("r1");
      List<Finding> unmet =
          findings.stream().filter(f -> f.kind() == Finding.Kind.UNMET_NEED).toList();
      boolean open = findings.stream().anyMatch(f -> f.kind() == Finding.Kind.UNDECIDED);
      found.add(open ? -1 : unmet.size());
      for (Finding finding : unmet) {
        if (finding.words().contains("sign-in")) {
          assertThat(finding.causes()).containsExactly("r2", "r3");
        } else {
          assertThat(finding.words()).isEqualTo("Tide needs Mail");
          assertThat(finding.causes()).containsExactly("r5");
        }
      }
    }
    assertThat(found).as("open with few steps, else both").containsExactlyInAnyOrder(-1, 2);
  }

  /** All orders of some of the rules. */
  private static List<List<Rule>> ordersOfSome(List<Rule> rules) {
    List<List<Rule>> out = new ArrayList<>(List.of(List.of()));
    for (int i = 0; i < out.size(); i++) {
      for (Rule rule : rules) {
        if (!out.get(i).contains(rule)) {
          List<Rule> more = new ArrayList<>(out.get(i));
          more.add(rule);
          out.add(more);
        }
      }
    }
    return out;
  }

  @Test
  void aNeedIsAskedAgainWhateverComesOrGoesWherever() {
    List<List<Rule>> states =
        ordersOfSome(
            List.of(
                rule("needs", Verdict.ALLOW, "", "Reel"),
                rule("serves", Verdict.CAUTION, "", "Reel sign-in"),
                rule("refuses", Verdict.DROP, "", "Reel sign-in")));
    List<Object> expected = new ArrayList<>();
    for (List<Rule> state : states) {
      expected.add(needs(new LiveAnalysis(base(state.toArray(Rule[]::new))), state));
    }
    assertThat(new HashSet<>(expected)).hasSize(3); // none, unmet, unmet because of a rule
    for (int from = 0; from < states.size(); from++) {
      for (int to = 0; to < states.size(); to++) {
        LiveAnalysis live = new LiveAnalysis(base(states.get(from).toArray(Rule[]::new)));
        live.findings();
        List<Rule> next = states.get(to);
        live.update(base(next.toArray(Rule[]::new)), Set.of("needs", "serves", "refuses"));
        assertThat(needs(live, next))
            .as("%s to %s", ids(states.get(from)), ids(next))
            .isEqualTo(expected.get(to));
      }
    }
  }

  private static List<String> ids(List<Rule> rules) {
    return rules.stream().map(Rule::id).toList();
  }

  /** The finding about the rule's needs, in words; empty if there is none. */
  private static List<List<String>> needs(LiveAnalysis live, List<Rule> rules) {
    return ids(rules).contains("needs")
        ? live.findings("needs").stream()
            .filter(f -> f.kind() == Finding.Kind.UNMET_NEED)
            .map(Finding::causes)
            .toList()
        : List.of();
  }

  private static Rule to(Rule rule, String address) {
    return rule.matching(
        rule.fromZones(),
        rule.fromAddresses(),
        rule.toZones(),
        Criterion.of(AddressItem.parse(address)),
        rule.services());
  }

  @Test
  void ofManyFeaturesThatDoNotShowSomeAreTold() {
    Rule four =
        rule("r1", Verdict.DROP, "", "Tide: read", "Tide: write", "Tide: list", "Tide: move");
    assertThat(says(base(four), "r1", Finding.Kind.UNSEEN_FEATURE))
        .containsExactly("Tide: read, Tide: write, Tide: list and 1 more");
    Rule three = rule("r1", Verdict.DROP, "", "Tide: read", "Tide: write", "Tide: list");
    assertThat(says(base(three), "r1", Finding.Kind.UNSEEN_FEATURE))
        .containsExactly("Tide: read, Tide: write and Tide: list");
    assertThat(says(base(three.enabled(false)), "r1", Finding.Kind.UNSEEN_FEATURE)).isEmpty();
  }
}
