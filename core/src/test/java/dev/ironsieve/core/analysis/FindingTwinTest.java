package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Breadth;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SlowRules;
import dev.ironsieve.core.twin.SmallWorld;
import dev.ironsieve.core.twin.WideWorld;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

/** Mergeable and too broad, by trying every connection of small worlds. */
class FindingTwinTest {
  private static final List<Connection> POINTS = SmallWorld.connectionsWithTerms();

  /** Rules of which many are like the one above but for one criterion, or allow anything. */
  private static Rulebase rulebase(long seed) {
    SmallWorld world = new SmallWorld(seed, true);
    Random random = new Random(seed);
    List<Rule> rules = new ArrayList<>();
    for (int i = 0; i < 6; i++) {
      Rule other = world.rule("r" + i);
      Rule above = rules.isEmpty() ? other : rules.getLast();
      rules.add(
          switch (random.nextInt(4)) {
            case 0 -> likeButServices(above, other);
            case 1 -> likeButPerson(above, other);
            case 2 -> Rule.matchingAll(other.id(), other.name(), other.verdict());
            default -> other;
          });
    }
    return world.rulebase(1).withSections(List.of(new Section("s", "S", rules)));
  }

  private static Rule likeButServices(Rule above, Rule other) {
    return above.edit().id(other.id()).services(other.services()).build();
  }

  private static Rule likeButPerson(Rule above, Rule other) {
    Map<Coordinate, Criterion<String>> terms = new EnumMap<>(Coordinate.class);
    terms.putAll(above.terms());
    terms.put(Coordinate.PERSON, other.term(Coordinate.PERSON));
    return above.edit().id(other.id()).terms(terms).build();
  }

  private static boolean has(LiveAnalysis live, Rule rule, Finding.Kind kind) {
    return live.findings(rule.id()).stream().anyMatch(finding -> finding.kind() == kind);
  }

  private static List<Criterion<?>> criteria(Rule rule) {
    List<Criterion<?>> out =
        new ArrayList<>(
            List.of(
                rule.fromZones(),
                rule.fromAddresses(),
                rule.toZones(),
                rule.toAddresses(),
                rule.services()));
    for (Coordinate coordinate : Coordinate.values()) {
      out.add(rule.term(coordinate));
    }
    return out;
  }

  /** By the definition: the same effect and exceptions, and one criterion that differs. */
  private static boolean isMergeable(Rule upper, Rule lower) {
    boolean sameEffect =
        List.of(upper.verdict(), upper.opening(), upper.logging(), upper.validity())
                .equals(
                    List.of(lower.verdict(), lower.opening(), lower.logging(), lower.validity()))
            && Objects.equals(upper.ratePlan(), lower.ratePlan())
            && Objects.equals(upper.notice(), lower.notice());
    List<Criterion<?>> one = criteria(upper);
    List<Criterion<?>> other = criteria(lower);
    int differing = 0;
    boolean sameExceptions = true;
    for (int i = 0; i < one.size(); i++) {
      differing += one.get(i).equals(other.get(i)) ? 0 : 1;
      sameExceptions &= one.get(i).except().equals(other.get(i).except());
    }
    return sameEffect && sameExceptions && differing == 1;
  }

  @Test
  void neighboursAreMergeableByTheDefinitionAndThenNoVerdictChanges() {
    int mergeable = 0;
    for (int seed = 0; seed < Rounds.of(400); seed++) {
      Rulebase base = rulebase(seed);
      LiveAnalysis live = new LiveAnalysis(base);
      List<Rule> inForce = base.rules().stream().filter(Rule::isInForce).toList();
      for (int i = 0; i < inForce.size(); i++) {
        Rule rule = inForce.get(i);
        Rule next = i + 1 < inForce.size() ? inForce.get(i + 1) : null;
        String as = "seed %d, %s".formatted(seed, rule.id());
        boolean found = has(live, rule, Finding.Kind.MERGEABLE);
        assertThat(found).as(as).isEqualTo(next != null && isMergeable(rule, next));
        if (found) {
          mergeable++;
          sameVerdicts(as, base, rule, next);
        }
      }
    }
    assertThat(mergeable).isGreaterThan(Rounds.least(150));
  }

  private static void sameVerdicts(String as, Rulebase base, Rule upper, Rule lower) {
    List<Rule> rules = new ArrayList<>(base.rules());
    rules.set(rules.indexOf(upper), Mergeable.merged(upper, lower).orElseThrow());
    rules.remove(lower);
    SlowRules before = new SlowRules(base);
    SlowRules after = new SlowRules(base.withSections(List.of(new Section("s", "S", rules))));
    for (Connection point : POINTS) {
      Optional<Verdict> was = before.decide(point).map(Rule::verdict);
      if (!was.equals(after.decide(point).map(Rule::verdict))) {
        assertThat(after.decide(point).map(Rule::verdict)).as("%s: %s", as, point).isEqualTo(was);
      }
    }
  }

  /** Whether each criterion that counts, alone, holds for every connection. */
  private static boolean isTooBroad(Rule rule, SlowRules slow, Breadth breadth) {
    Rule any = Rule.matchingAll("any", "any", rule.verdict());
    for (Breadth.Dimension part : breadth.counting()) {
      Rule alone =
          part.coordinate() == null
              ? likeButServices(any, rule)
              : any.asking(Map.of(part.coordinate(), rule.term(part.coordinate())));
      if (!POINTS.stream().allMatch(point -> slow.holds(alone, point))) {
        return false;
      }
    }
    return rule.isInForce() && rule.verdict() == Verdict.ALLOW;
  }

  @Test
  void aRuleIsTooBroadIfNoCriterionThatCountsLeavesAnythingOut() {
    int broad = 0;
    for (int seed = 0; seed < Rounds.of(400); seed++) {
      Rulebase base = rulebase(seed);
      LiveAnalysis live = new LiveAnalysis(base);
      SlowRules slow = new SlowRules(base);
      Breadth breadth = base.gatewaySettings().breadth();
      assertThat(breadth.addresses()).as("the ends do not count").isEqualTo(1);
      for (Rule rule : base.rules()) {
        boolean expected = isTooBroad(rule, slow, breadth);
        assertThat(has(live, rule, Finding.Kind.TOO_BROAD))
            .as("seed %d, %s", seed, rule)
            .isEqualTo(expected);
        broad += expected ? 1 : 0;
      }
    }
    assertThat(broad).isGreaterThan(Rounds.least(100));
  }

  /**
   * Whether a sealed rule holds for a connection but not for another that differs in nothing but
   * what shows in opened connections.
   */
  private static boolean isUnseen(
      Rule rule, SlowRules slow, List<Connection> points, Coordinate by) {
    if (!rule.isInForce() || rule.opening() == Opening.OPENED) {
      return false;
    }
    Map<Object, Boolean> held = new HashMap<>(); // by all that shows in sealed connections
    for (Connection point : points) {
      Map<Coordinate, String> terms = new EnumMap<>(point.terms());
      String hidden = terms.get(by);
      terms.put(by, by == Coordinate.SITE ? hidden.split("/")[0] : hidden.split(":")[0]);
      boolean holds = slow.holds(rule, point);
      Boolean other = held.putIfAbsent(point.saying(terms), holds);
      if (other != null && other != holds) {
        return true;
      }
    }
    return false;
  }

  private static void unseen(
      int seed, Rulebase base, List<Connection> points, Coordinate by, AtomicInteger count) {
    LiveAnalysis live = new LiveAnalysis(base);
    SlowRules slow = new SlowRules(base);
    for (Rule rule : base.rules()) {
      if (points.stream().noneMatch(point -> slow.holds(rule, point))) {
        continue; // empty
      }
      boolean expected = isUnseen(rule, slow, points, by);
      assertThat(has(live, rule, Finding.Kind.UNSEEN_FEATURE))
          .as("seed %d, %s", seed, rule)
          .isEqualTo(expected);
      count.addAndGet(expected ? 1 : 0);
    }
  }

  @Test
  void aSealedRuleThatTellsFeaturesApartHasAnUnseenFeature() {
    AtomicInteger count = new AtomicInteger();
    for (int seed = 0; seed < Rounds.of(300); seed++) {
      unseen(seed, rulebase(seed), POINTS, Coordinate.APPLICATION, count);
    }
    assertThat(count.get()).isGreaterThan(Rounds.least(60));
  }

  /** Paths show in plain connections, so only port 443 is looked at. */
  @Test
  void aSealedRuleThatTellsPathsApartHasAnUnseenFeature() {
    AtomicInteger count = new AtomicInteger();
    for (int seed = 0; seed < Rounds.of(300); seed++) {
      WideWorld world = new WideWorld(seed);
      Rulebase base = world.rulebase(6);
      List<Connection> points = new ArrayList<>(world.points());
      points.removeIf(point -> point.detail() != 443);
      if (points.getFirst().terms().containsKey(Coordinate.SITE)) {
        unseen(seed, base, points, Coordinate.SITE, count);
      }
    }
    assertThat(count.get()).isGreaterThan(Rounds.least(12));
  }
}
