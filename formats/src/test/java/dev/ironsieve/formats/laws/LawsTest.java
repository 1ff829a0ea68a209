package dev.ironsieve.formats.laws;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.analysis.Finding;
import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.analysis.Placement;
import dev.ironsieve.core.analysis.Standing;
import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Logging;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.repair.Repair;
import dev.ironsieve.core.repair.Repairs;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.twin.SlowRules;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.EdgeCasesMode;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;

/**
 * What has to hold of every rulebase, whatever is in it. What breaks a law is shrunk, and printed
 * as a document that can be given to {@code ./iron-sieve check}.
 */
class LawsTest {
  private static final Rulebase WORLD = new SmallWorld(1, true).rulebase(1);
  private static final List<Connection> POINTS = SmallWorld.connectionsWithTerms();
  private static final int TRIES = 150;

  private static <T> Arbitrary<Criterion<T>> criterion(Arbitrary<T> item) {
    return Combinators.combine(item.list().ofMaxSize(2), item.list().ofMaxSize(1))
        .as(Criterion::new);
  }

  private static Arbitrary<Map<Coordinate, Criterion<String>>> terms() {
    Arbitrary<Criterion<String>> people =
        criterion(Arbitraries.of("ann", "ben", "nobody", "signed in"));
    Arbitrary<Criterion<String>> applications =
        criterion(Arbitraries.of("chat", "chat: post", "mail"));
    return Combinators.combine(people, applications)
        .as(
            (person, application) -> {
              Map<Coordinate, Criterion<String>> out = new EnumMap<>(Coordinate.class);
              out.put(Coordinate.PERSON, person);
              out.put(Coordinate.APPLICATION, application);
              return out;
            });
  }

  private static Arbitrary<Rule> rule() {
    Arbitrary<Criterion<String>> zones = criterion(Arbitraries.of("north", "south"));
    Arbitrary<Criterion<AddressItem>> addresses =
        criterion(
            Arbitraries.of("10.0.0.0/31", "10.0.0.1", "10.0.0.2-10.0.0.3", "fd00::1", "pair")
                .map(AddressItem::parse));
    Arbitrary<Criterion<ServiceItem>> services =
        criterion(Arbitraries.of("tcp/1", "tcp", "icmp/8", "ip/47").map(ServiceItem::parse));
    return Combinators.combine(
            zones,
            addresses,
            zones,
            addresses,
            services,
            terms(),
            Arbitraries.of(Verdict.ALLOW, Verdict.DROP, Verdict.REJECT))
        .as(
            (fromZones, from, toZones, to, service, terms, verdict) ->
                new Rule(
                    "r",
                    "r",
                    true,
                    fromZones,
                    from,
                    toZones,
                    to,
                    service,
                    terms,
                    verdict,
                    Opening.SEALED,
                    Logging.OFF,
                    ""));
  }

  @Provide
  Arbitrary<Document> rulebases() {
    return rule().list().ofMinSize(1).ofMaxSize(7).map(LawsTest::numbered);
  }

  private static Document numbered(List<Rule> rules) {
    List<Rule> out = new ArrayList<>();
    for (Rule r : rules) {
      String id = "r" + (out.size() + 1);
      out.add(
          new Rule(
              id,
              "rule " + id,
              true,
              r.fromZones(),
              r.fromAddresses(),
              r.toZones(),
              r.toAddresses(),
              r.services(),
              r.terms(),
              r.verdict(),
              r.opening(),
              r.logging(),
              r.note()));
    }
    return new Document(with(WORLD, out));
  }

  private static Rulebase with(Rulebase base, List<Rule> rules) {
    return base.withSections(List.of(new Section("s", "Rules", rules)));
  }

  private static Map<String, Set<Finding.Kind>> kinds(Rulebase base) {
    Map<String, Set<Finding.Kind>> out = new TreeMap<>();
    LiveAnalysis live = new LiveAnalysis(base);
    for (Rule rule : base.rules()) {
      Set<Finding.Kind> kinds = EnumSet.noneOf(Finding.Kind.class);
      live.findings(rule.id()).forEach(finding -> kinds.add(finding.kind()));
      kinds.remove(Finding.Kind.MERGEABLE); // which is about neighbours
      out.put(rule.id(), kinds);
    }
    return out;
  }

  private static List<Verdict> verdicts(Rulebase base) {
    SlowRules slow = new SlowRules(base);
    return POINTS.stream()
        .map(point -> slow.decide(point).map(Rule::verdict).orElse(Verdict.DROP))
        .toList();
  }

  @Property(tries = TRIES, edgeCases = EdgeCasesMode.NONE)
  void aRuleDecidesIfSomePointSaysSo(@ForAll("rulebases") Document document) {
    Rulebase base = document.base();
    SlowRules slow = new SlowRules(base);
    Set<String> deciding =
        POINTS.stream()
            .flatMap(point -> slow.decide(point).stream())
            .map(Rule::id)
            .collect(Collectors.toSet());
    LiveAnalysis live = new LiveAnalysis(base);
    for (Rule rule : base.rules()) {
      assertThat(live.standing(rule.id()) instanceof Standing.Decides)
          .as(rule.name())
          .isEqualTo(deciding.contains(rule.id()));
    }
  }

  @Property(tries = TRIES, edgeCases = EdgeCasesMode.NONE)
  void swappingTwoDisjointRulesChangesNothing(@ForAll("rulebases") Document document) {
    Rulebase base = document.base();
    SlowRules slow = new SlowRules(base);
    for (int i = 0; i + 1 < base.rules().size(); i++) {
      Rule upper = base.rules().get(i);
      Rule lower = base.rules().get(i + 1);
      if (POINTS.stream().noneMatch(p -> slow.holds(upper, p) && slow.holds(lower, p))) {
        List<Rule> swapped = new ArrayList<>(base.rules());
        Collections.swap(swapped, i, i + 1);
        Rulebase after = with(base, swapped);
        assertThat(Differences.between(base, after, Aspect.RULE).isEmpty()).isTrue();
        assertThat(kinds(after)).as("%s and %s", upper.name(), lower.name()).isEqualTo(kinds(base));
      }
    }
  }

  @Property(tries = TRIES, edgeCases = EdgeCasesMode.NONE)
  void aQuietPlaceChangesNoVerdictAndAnyOtherDoes(@ForAll("rulebases") Document document) {
    Rulebase base = document.base();
    LiveAnalysis live = new LiveAnalysis(base);
    Rule rule = base.rules().getLast();
    Placement placement = live.placement(rule.id());
    List<Verdict> before = verdicts(base);
    for (int place = 0; place < placement.places(); place++) {
      List<Rule> moved = new ArrayList<>(base.rules());
      moved.remove(rule);
      moved.add(place, rule);
      assertThat(verdicts(with(base, moved)).equals(before))
          .as("at place %d", place)
          .isEqualTo(placement.quiet(place));
    }
  }

  @Property(tries = TRIES, edgeCases = EdgeCasesMode.NONE)
  void aRepairRemovesItsFindingAndChangesWhatItSays(@ForAll("rulebases") Document document) {
    Rulebase base = document.base();
    LiveAnalysis live = new LiveAnalysis(base);
    List<Verdict> before = verdicts(base);
    for (Finding finding : live.findings()) {
      for (Repair repair : Repairs.of(finding, live)) {
        Rulebase after = repair.edit().apply(base);
        List<Verdict> verdicts = verdicts(after);
        for (int p = 0; p < POINTS.size(); p++) {
          assertThat(repair.effect().part(POINTS.get(p)).isPresent())
              .as("%s at %s", repair.summary(), POINTS.get(p))
              .isEqualTo(verdicts.get(p) != before.get(p));
        }
        assertThat(new LiveAnalysis(after).findings())
            .as(repair.summary())
            .noneMatch(
                left ->
                    left.kind() == finding.kind()
                        && left.rule().equals(finding.rule())
                        && left.causes().equals(finding.causes()));
      }
    }
  }

  @Property(tries = TRIES, edgeCases = EdgeCasesMode.NONE)
  void aDifferenceWithItselfIsEmptyAndTheWayBackIsTheSame(
      @ForAll("rulebases") Document document, @ForAll("rulebases") Document other) {
    Rulebase base = document.base();
    Rulebase after = with(base, other.base().rules());
    assertThat(Differences.between(base, base, Aspect.RULE).isEmpty()).isTrue();
    Difference there = Differences.between(base, after, Aspect.VERDICT);
    Difference back = Differences.between(after, base, Aspect.VERDICT);
    for (Connection point : POINTS) {
      assertThat(
              there.part(point).map(part -> List.of(summary(part.before()), summary(part.after()))))
          .as("%s", point)
          .isEqualTo(
              back.part(point).map(part -> List.of(summary(part.after()), summary(part.before()))));
    }
  }

  private static Verdict summary(Rule rule) {
    return rule == null ? Verdict.DROP : rule.verdict();
  }
}
