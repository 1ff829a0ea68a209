package dev.ironsieve.core.checks;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SlowRules;
import dev.ironsieve.core.twin.SmallWorld;
import dev.ironsieve.core.twin.Tried;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

/**
 * Points for checks, and what checks notice, against making every mistake and trying every point.
 */
class ChecksTwinTest {

  /** Every mistake, made for real. */
  private static final class Mistakes {
    final List<Mutant> mutants = new ArrayList<>();
    final List<Rulebase> made = new ArrayList<>();
    final List<Boolean> shows = new ArrayList<>();

    Mistakes(Rulebase base, List<Connection> points) {
      Tried right = new Tried(base, points);
      List<Rule> rules = base.rules();
      for (int i = 0; i < rules.size(); i++) {
        Rule rule = rules.get(i);
        if (!rule.enabled()) {
          continue;
        }
        Verdict other = rule.verdict() == Verdict.CAUTION ? Verdict.ALLOW : Verdict.CAUTION;
        Rule changed = rule.edit().verdict(other).build();
        add(new Mutant.OtherVerdict(rule.id()), replaced(base, i, changed), right);
        add(new Mutant.Disabled(rule.id()), replaced(base, i, rule.enabled(false)), right);
        int next = i + 1;
        while (next < rules.size() && !rules.get(next).enabled()) {
          next++;
        }
        if (next < rules.size() && rules.get(next).verdict() != rule.verdict()) {
          List<Rule> swapped = new ArrayList<>(rules);
          Collections.swap(swapped, i, next);
          Mutant swap = new Mutant.Swapped(rule.id(), rules.get(next).id());
          add(swap, with(base, swapped), right);
        }
        for (Mutant.DroppedCriterion part : Mutant.DroppedCriterion.values()) {
          Rule wider = without(rule, part);
          if (!wider.equals(rule)) {
            add(new Mutant.Widened(rule.id(), part), replaced(base, i, wider), right);
          }
        }
      }
    }

    private static Rule without(Rule rule, Mutant.DroppedCriterion part) {
      return switch (part) {
        case FROM -> rule.edit().from(Criterion.any(), Criterion.any()).build();
        case TO -> rule.edit().to(Criterion.any(), Criterion.any()).build();
        case SERVICE -> rule.edit().services(Criterion.any()).build();
        case PERSON, DEVICE, SITE, APPLICATION, FILE_KIND, TIME -> {
          Map<Coordinate, Criterion<String>> terms = new HashMap<>(rule.terms());
          terms.keySet().removeIf(coordinate -> coordinate.name().equals(part.name()));
          yield rule.edit().terms(terms).build();
        }
      };
    }

    private static Rulebase replaced(Rulebase base, int at, Rule rule) {
      List<Rule> rules = new ArrayList<>(base.rules());
      rules.set(at, rule);
      return with(base, rules);
    }

    private static Rulebase with(Rulebase base, List<Rule> rules) {
      return base.withSections(List.of(new Section("s", "S", rules)));
    }

    private void add(Mutant mutant, Rulebase after, Tried right) {
      mutants.add(mutant);
      made.add(after);
      shows.add(!Arrays.equals(right.verdicts(), right.on(after).verdicts()));
    }

    Set<Mutant> noticedBy(List<Check> checks) {
      Set<Mutant> out = new HashSet<>();
      for (int i = 0; i < mutants.size(); i++) {
        SlowRules slow = new SlowRules(made.get(i));
        if (checks.stream().anyMatch(check -> verdict(slow, check) != check.expected())) {
          out.add(mutants.get(i));
        }
      }
      return out;
    }

    Set<Mutant> thatShow() {
      Set<Mutant> out = new HashSet<>();
      for (int i = 0; i < mutants.size(); i++) {
        if (shows.get(i)) {
          out.add(mutants.get(i));
        }
      }
      return out;
    }

    private static Verdict verdict(SlowRules slow, Check check) {
      return slow.decide(check.connection()).map(Rule::verdict).orElse(Verdict.DROP);
    }
  }

  @Test
  void pointsShowEveryMistakeThatShowsAtAll() {
    int made = 0;
    int harmless = 0;
    for (int seed = 0; seed < Rounds.of(80); seed++) {
      boolean withTerms = seed % 4 == 0;
      Rulebase base = new SmallWorld(seed, withTerms).rulebase(7);
      List<Connection> points =
          withTerms ? SmallWorld.connectionsWithTerms() : SmallWorld.connections();
      Mistakes mistakes = new Mistakes(base, points);
      TestPoints told = TestPoints.of(base);
      String as = "seed " + seed;
      SlowRules right = new SlowRules(base);
      assertThat(told.checks())
          .as(as)
          .allMatch(check -> Mistakes.verdict(right, check) == check.expected());
      assertThat(told.undecided()).as(as).isEmpty();
      assertThat(mistakes.noticedBy(told.checks())).as(as).isEqualTo(mistakes.thatShow());
      Set<Mutant> others = new HashSet<>(mistakes.mutants);
      others.removeAll(mistakes.thatShow());
      assertThat(new HashSet<>(told.harmless())).as(as).isEqualTo(others);
      assertThat(told.atLeast()).as(as).isLessThanOrEqualTo(told.checks().size());
      for (int i = 0; i < told.checks().size(); i++) {
        List<Check> fewer = new ArrayList<>(told.checks());
        fewer.remove(i);
        assertThat(mistakes.noticedBy(fewer))
            .as("%s without %s", as, i)
            .isNotEqualTo(mistakes.thatShow());
      }
      made += mistakes.mutants.size();
      harmless += others.size();
    }
    assertThat(made).isGreaterThan(Rounds.of(1000));
    assertThat(harmless).isGreaterThan(Rounds.of(100));
  }

  @Test
  void coverageIsWhatMakingEveryMistakeTells() {
    for (int seed = 100; seed < 100 + Rounds.of(50); seed++) {
      boolean withTerms = seed % 4 == 0;
      Rulebase base = new SmallWorld(seed, withTerms).rulebase(7);
      List<Connection> points =
          withTerms ? SmallWorld.connectionsWithTerms() : SmallWorld.connections();
      Mistakes mistakes = new Mistakes(base, points);
      SlowRules right = new SlowRules(base);
      Random random = new Random(seed);
      List<Check> checks = new ArrayList<>();
      for (int i = 0; i < 6; i++) {
        Connection connection = points.get(random.nextInt(points.size()));
        Verdict is = right.decide(connection).map(Rule::verdict).orElse(Verdict.DROP);
        checks.add(new Check(connection, is));
      }
      Connection wrong = points.get(random.nextInt(points.size()));
      Verdict decided = right.decide(wrong).map(Rule::verdict).orElse(Verdict.DROP);
      Check failing =
          new Check(wrong, decided == Verdict.CAUTION ? Verdict.ALLOW : Verdict.CAUTION);
      Check vague =
          new Check(
              new Connection(Connection.Endpoint.NOT_KNOWN, Connection.Endpoint.NOT_KNOWN, 6, 1, 5),
              Verdict.DROP);
      List<Check> all = new ArrayList<>(checks);
      all.add(failing);
      all.add(vague);
      Coverage told = Coverage.of(base, all);
      String as = "seed " + seed;
      assertThat(new HashSet<>(told.noticed())).as(as).isEqualTo(mistakes.noticedBy(checks));
      assertThat(told.failing()).as(as).containsExactly(failing);
      assertThat(told.vague()).as(as).containsExactly(vague);
      Set<Mutant> missed = mistakes.thatShow();
      missed.removeAll(told.noticed());
      assertThat(told.missed().stream().map(Coverage.Missed::mutant))
          .as(as)
          .containsExactlyInAnyOrderElementsOf(missed);
      for (Coverage.Missed miss : told.missed()) {
        Verdict is = right.decide(miss.witness()).map(Rule::verdict).orElse(Verdict.DROP);
        assertThat(mistakes.noticedBy(List.of(new Check(miss.witness(), is))))
            .as("%s, %s", as, miss)
            .contains(miss.mutant());
      }
      int showing = mistakes.thatShow().size();
      double share = showing == 0 ? 1 : (double) told.noticed().size() / showing;
      assertThat(told.share()).as(as).isEqualTo(share);
    }
  }
}
