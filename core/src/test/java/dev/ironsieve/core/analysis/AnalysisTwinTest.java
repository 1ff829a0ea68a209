package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.RandomEdits;
import dev.ironsieve.core.edit.Touched;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.twin.SlowRules;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** The analysis against trying every point. */
class AnalysisTwinTest {
  private static final List<Connection> ALL = SmallWorld.connections();

  /** Which rules hold at which point, and which rule decides it. */
  private static final class Tried {
    final List<Rule> rules;
    final List<BitSet> held = new ArrayList<>();
    final int[] decides = new int[ALL.size()];

    Tried(Rulebase base) {
      rules = base.rules();
      SlowRules slow = new SlowRules(base);
      java.util.Arrays.fill(decides, -1);
      for (int i = 0; i < rules.size(); i++) {
        BitSet points = new BitSet();
        for (int p = 0; p < ALL.size(); p++) {
          if (slow.holds(rules.get(i), ALL.get(p))) {
            points.set(p);
            if (decides[p] < 0 && rules.get(i).enabled()) {
              decides[p] = i;
            }
          }
        }
        held.add(points);
      }
    }

    boolean covers(BitSet some, int rule) {
      BitSet left = (BitSet) held.get(rule).clone();
      some.stream().forEach(i -> left.andNot(held.get(i)));
      return left.isEmpty();
    }

    boolean someCoverIsSmallerThan(int size, int rule) {
      for (long subset = 0; subset < 1L << rule; subset++) {
        BitSet some = BitSet.valueOf(new long[] {subset});
        boolean enabled = some.stream().allMatch(i -> rules.get(i).enabled());
        if (enabled && Long.bitCount(subset) < size && covers(some, rule)) {
          return true;
        }
      }
      return false;
    }
  }

  private static void check(String as, Rulebase base, Map<String, Standing> standings) {
    Tried tried = new Tried(base);
    SlowRules slow = new SlowRules(base);
    Map<String, Integer> numbers = new HashMap<>();
    for (int i = 0; i < tried.rules.size(); i++) {
      numbers.put(tried.rules.get(i).id(), i);
    }
    assertThat(standings.keySet()).as(as).isEqualTo(numbers.keySet());
    for (int i = 0; i < tried.rules.size(); i++) {
      Rule rule = tried.rules.get(i);
      int number = i;
      String at = as + ", " + rule;
      boolean decides = java.util.Arrays.stream(tried.decides).anyMatch(d -> d == number);
      switch (standings.get(rule.id())) {
        case Standing.PassedOver off -> assertThat(rule.enabled()).as(at).isFalse();
        case Standing.Empty empty -> {
          assertThat(rule.enabled()).as(at).isTrue();
          assertThat(tried.held.get(i).isEmpty()).as(at).isTrue();
        }
        case Standing.Decides found -> {
          assertThat(decides).as(at).isTrue();
          assertThat(slow.decide(found.witness())).as(at).contains(rule);
          assertThat(found.reach().share()).as(at).isBetween(0.0, 1.0);
          if (found.reach().uncertainty() == 0) {
            for (int above = 0; above < i; above++) {
              boolean meets = tried.held.get(above).intersects(tried.held.get(i));
              assertThat(meets && tried.rules.get(above).enabled()).as(at).isFalse();
            }
          }
        }
        case Standing.Covered found -> {
          assertThat(decides).as(at).isFalse();
          assertThat(tried.held.get(i).isEmpty()).as(at).isFalse();
          BitSet causes = new BitSet();
          found.causes().forEach(id -> causes.set(numbers.get(id)));
          assertThat(causes.length()).as(at).isLessThanOrEqualTo(i);
          assertThat(tried.covers(causes, i)).as(at).isTrue();
          causes.stream()
              .forEach(
                  cause -> {
                    BitSet fewer = (BitSet) causes.clone();
                    fewer.clear(cause);
                    assertThat(tried.covers(fewer, number)).as(at).isFalse();
                  });
          assertThat(found.smallest()).as(at).isTrue();
          assertThat(tried.someCoverIsSmallerThan(causes.cardinality(), i)).as(at).isFalse();
          boolean others =
              tried.held.get(i).stream()
                  .anyMatch(p -> tried.rules.get(tried.decides[p]).verdict() != rule.verdict());
          assertThat(found.kind() == Standing.Kind.SHADOWED).as(at).isEqualTo(others);
          assertThat(slow.holds(rule, found.witness())).as(at).isTrue();
          assertThat(slow.decide(found.witness()).orElseThrow().id())
              .as(at)
              .isEqualTo(found.decidedBy());
          if (others) {
            assertThat(slow.decide(found.witness()).orElseThrow().verdict())
                .as(at)
                .isNotEqualTo(rule.verdict());
          }
        }
        case Standing.Undecided open -> throw new AssertionError(at + ": " + open);
      }
    }
  }

  @Test
  void agreesWithTryingEveryPointOnThousandsOfRulebases() {
    for (int seed = 0; seed < 3000; seed++) {
      Rulebase base = new SmallWorld(seed).rulebase(9);
      check("seed " + seed, base, new LiveAnalysis(base).standings());
    }
  }

  @Test
  void staysRightThroughRandomEdits() {
    for (int seed = 0; seed < 120; seed++) {
      RandomEdits edits = new RandomEdits(seed);
      Rulebase base = new SmallWorld(seed).rulebase(8);
      LiveAnalysis live = new LiveAnalysis(base);
      for (int step = 0; step < 12; step++) {
        Edit edit = edits.next(base);
        Map<String, Standing> before = Map.copyOf(live.standings());
        Set<String> touched = Touched.ruleIds(edit.touched(base));
        base = edit.apply(base);
        Map<String, Standing> changed = live.update(base, touched);
        String as = "seed " + seed + " step " + step + " " + edit;
        check(as, base, live.standings());
        live.standings()
            .forEach(
                (id, now) ->
                    assertThat(changed.containsKey(id))
                        .as("%s: %s", as, id)
                        .isEqualTo(!now.equals(before.get(id))));
      }
    }
  }

  @Test
  void aBudgetThatRunsOutIsSaidAndNothingElseIsWrong() {
    int undecided = 0;
    for (int seed = 0; seed < 400; seed++) {
      Rulebase base = new SmallWorld(seed).rulebase(9);
      Map<String, Standing> full = new LiveAnalysis(base).standings();
      Map<String, Standing> hasty = new LiveAnalysis(base, 6).standings();
      for (Map.Entry<String, Standing> entry : hasty.entrySet()) {
        switch (entry.getValue()) {
          case Standing.Undecided open -> {
            undecided++;
            assertThat(open.steps()).isEqualTo(6);
          }
          case Standing.Covered covered -> {
            Standing.Covered exact = (Standing.Covered) full.get(entry.getKey());
            assertThat(covered.kind()).isEqualTo(exact.kind());
            assertThat(covered.causes().size()).isGreaterThanOrEqualTo(exact.causes().size());
            if (covered.smallest()) {
              assertThat(covered.causes()).hasSameSizeAs(exact.causes());
            }
          }
          default ->
              assertThat(entry.getValue().getClass())
                  .isEqualTo(full.get(entry.getKey()).getClass());
        }
      }
    }
    assertThat(undecided).isPositive();
  }
}
