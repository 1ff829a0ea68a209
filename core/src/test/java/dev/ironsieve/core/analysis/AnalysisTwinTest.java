package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.RandomEdits;
import dev.ironsieve.core.edit.Touched;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SlowNeeds;
import dev.ironsieve.core.twin.SlowRules;
import dev.ironsieve.core.twin.SmallWorld;
import dev.ironsieve.core.twin.Tried;
import dev.ironsieve.core.twin.WideWorld;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** The analysis against trying every point. */
class AnalysisTwinTest {
  private static final List<Connection> PLAIN = SmallWorld.connections();
  private static final List<Connection> WITH_TERMS = SmallWorld.connectionsWithTerms();

  /** All findings and standings of one rulebase, compared with those of trying every point. */
  private static final class Comparison {
    private final String as;
    private final LiveAnalysis live;
    private final Tried tried;
    private final SlowRules slow;
    private final SlowNeeds needs;
    private int unmetNeeds;
    private final Map<String, Integer> numbers = new HashMap<>();

    Comparison(String as, LiveAnalysis live, Tried tried, List<Connection> points) {
      this.as = as;
      this.live = live;
      this.tried = tried;
      slow = new SlowRules(live.rulebase());
      needs =
          new SlowNeeds(
              tried, points, live.rulebase().vocabulary(Coordinate.APPLICATION).orElse(null));
      for (Rule rule : tried.rules()) {
        numbers.put(rule.id(), numbers.size());
      }
    }

    void run() {
      assertThat(live.standings().keySet()).as(as).isEqualTo(numbers.keySet());
      for (int i = 0; i < tried.rules().size(); i++) {
        standing(i);
        below(i);
        pairs(i, Finding.Kind.CORRELATED);
        pairs(i, Finding.Kind.GENERALISED);
        needs(i);
      }
    }

    private void needs(int i) {
      Rule rule = tried.rules().get(i);
      Set<String> told = new TreeSet<>();
      for (Finding finding : live.findings(rule.id())) {
        if (finding.kind() != Finding.Kind.UNMET_NEED) {
          continue;
        }
        unmetNeeds++;
        told.add(finding.words()); // in these worlds one application needs another
        String needed = finding.need().needed();
        assertThat(slow.decide(finding.witness())).as(as + finding).contains(rule);
        BitSet causes = bits(finding.causes());
        assertThat(needs.isKeptFrom(finding.witness(), needed, causes)).as(as + finding).isTrue();
        causes.stream()
            .forEach(
                cause ->
                    assertThat(needs.isKeptFrom(finding.witness(), needed, less(causes, cause)))
                        .as(as + finding + " without " + cause)
                        .isFalse());
      }
      assertThat(told).as(as + ", " + rule).isEqualTo(needs.unmet(i));
    }

    private void standing(int i) {
      Rule rule = tried.rules().get(i);
      String at = as + ", " + rule;
      boolean decides = !tried.decided(i).isEmpty();
      switch (live.standing(rule.id())) {
        case Standing.PassedOver off -> assertThat(SlowRules.mayDecide(rule)).as(at).isFalse();
        case Standing.Empty empty -> {
          assertThat(SlowRules.mayDecide(rule)).as(at).isTrue();
          assertThat(tried.held(i).isEmpty()).as(at).isTrue();
        }
        case Standing.Decides found -> {
          assertThat(decides).as(at).isTrue();
          assertThat(slow.decide(found.witness())).as(at).contains(rule);
          Reach reach = live.reach(rule.id());
          assertThat(reach.share()).as(at).isBetween(0.0, 1.0);
          if (reach.uncertainty() == 0) {
            assertThat(tried.decided(i)).as(at).isEqualTo(tried.held(i));
          }
        }
        case Standing.Covered found -> covered(i, found, at);
        case Standing.Undecided open -> throw new AssertionError(at + ": " + open);
      }
    }

    private void covered(int i, Standing.Covered found, String at) {
      Rule rule = tried.rules().get(i);
      assertThat(tried.decided(i).isEmpty()).as(at).isTrue();
      assertThat(tried.held(i).isEmpty()).as(at).isFalse();
      assertThat(live.reach(rule.id())).as(at).isEqualTo(Reach.NONE);
      BitSet causes = bits(found.causes());
      assertThat(causes.length()).as(at).isLessThanOrEqualTo(i);
      assertThat(tried.covers(causes, i)).as(at).isTrue();
      causes.stream()
          .forEach(cause -> assertThat(tried.covers(less(causes, cause), i)).as(at).isFalse());
      assertThat(found.smallest()).as(at).isTrue();
      assertThat(tried.someCoverIsSmallerThan(causes.cardinality(), i)).as(at).isFalse();
      boolean others =
          tried.held(i).stream()
              .anyMatch(p -> tried.verdict(tried.decides(p, -1)) != rule.verdict());
      assertThat(found.kind() == Standing.Kind.SHADOWED).as(at).isEqualTo(others);
      assertThat(slow.holds(rule, found.witness())).as(at).isTrue();
      Rule by = slow.decide(found.witness()).orElseThrow();
      assertThat(by.id()).as(at).isEqualTo(found.decidedBy());
      if (others) {
        assertThat(by.verdict()).as(at).isNotEqualTo(rule.verdict());
      }
    }

    private BitSet bits(List<String> ids) {
      BitSet out = new BitSet();
      ids.forEach(id -> out.set(numbers.get(id)));
      assertThat(ids)
          .as(as)
          .isEqualTo(out.stream().mapToObj(n -> tried.rules().get(n).id()).toList());
      return out;
    }

    private static BitSet less(BitSet some, int one) {
      BitSet fewer = (BitSet) some.clone();
      fewer.clear(one);
      return fewer;
    }

    private Finding only(int i, Finding.Kind kind) {
      List<Finding> found =
          live.findings(tried.rules().get(i).id()).stream().filter(f -> f.kind() == kind).toList();
      assertThat(found.size()).as(as).isLessThanOrEqualTo(1);
      return found.isEmpty() ? null : found.getFirst();
    }

    private void below(int i) {
      Finding found = only(i, Finding.Kind.REDUNDANT_BELOW);
      Rule rule = tried.rules().get(i);
      String at = as + ", below " + rule + ": " + found;
      assertThat(found != null).as(at).isEqualTo(tried.isRedundantBelow(i));
      if (found == null) {
        return;
      }
      BitSet causes = bits(found.causes());
      assertThat(causes.nextSetBit(0) < 0 || causes.nextSetBit(0) > i).as(at).isTrue();
      causes.stream()
          .forEach(cause -> assertThat(tried.verdict(cause)).as(at).isEqualTo(rule.verdict()));
      assertThat(tried.isRedundantBelow(i, causes)).as(at).isTrue();
      causes.stream()
          .forEach(
              cause -> assertThat(tried.isRedundantBelow(i, less(causes, cause))).as(at).isFalse());
      assertThat(slow.decide(found.witness())).as(at).contains(rule);
      Verdict without =
          new SlowRules(new Edit.DeleteRules(List.of(rule.id())).apply(live.rulebase()))
              .decide(found.witness())
              .map(Rule::verdict)
              .orElse(Verdict.DROP);
      assertThat(without).as(at).isEqualTo(rule.verdict());
    }

    private void pairs(int i, Finding.Kind kind) {
      Rule rule = tried.rules().get(i);
      List<String> expected =
          IntStream.range(0, i)
              .filter(
                  j ->
                      kind == Finding.Kind.CORRELATED
                          ? tried.correlates(i, j)
                          : tried.generalises(i, j))
              .mapToObj(j -> tried.rules().get(j).id())
              .toList();
      Finding found = only(i, kind);
      String at = as + ", " + kind + " " + rule + ": " + found;
      assertThat(live.partners(rule.id(), kind).rules()).as(at).isEqualTo(expected);
      assertThat(found != null).as(at).isEqualTo(!expected.isEmpty());
      if (found != null) {
        assertThat(found.causes()).as(at).hasSize(1);
        assertThat(expected).as(at).contains(found.causes().getFirst());
        assertThat(slow.holds(rule, found.witness())).as(at).isTrue();
        assertThat(slow.decide(found.witness()).orElseThrow().id())
            .as(at)
            .isEqualTo(found.causes().getFirst());
      }
    }
  }

  @Test
  void agreesWithTryingEveryPointOnThousandsOfRulebases() {
    for (int seed = 0; seed < Rounds.of(3000); seed++) {
      Rulebase base = new SmallWorld(seed).rulebase(9);
      new Comparison("seed " + seed, new LiveAnalysis(base), new Tried(base, PLAIN), PLAIN).run();
    }
  }

  @Test
  void agreesWhereRulesSpeakOfPeopleAndApplicationsToo() {
    for (int seed = 0; seed < Rounds.of(400); seed++) {
      Rulebase base = new SmallWorld(seed, true).rulebase(9);
      new Comparison(
              "seed " + seed, new LiveAnalysis(base), new Tried(base, WITH_TERMS), WITH_TERMS)
          .run();
    }
  }

  @Test
  void agreesWhereRulesAskForHostsDevicesFilesAndTimes() {
    int empty = 0;
    for (int seed = 0; seed < Rounds.of(300); seed++) {
      WideWorld world = new WideWorld(seed);
      Rulebase base = world.rulebase(8);
      LiveAnalysis live = new LiveAnalysis(base);
      List<Connection> points = world.points();
      new Comparison("seed " + seed, live, new Tried(base, points), points).run();
      empty +=
          (int) live.standings().values().stream().filter(Standing.Empty.class::isInstance).count();
    }
    assertThat(empty).isGreaterThan(Rounds.least(30));
  }

  @Test
  void staysRightThroughRandomEdits() {
    for (int seed = 0; seed < Rounds.of(240); seed++) {
      boolean withTerms = seed % 3 == 0;
      List<Connection> points = withTerms ? WITH_TERMS : PLAIN;
      RandomEdits edits = new RandomEdits(seed, withTerms);
      Rulebase start = new SmallWorld(seed, withTerms).rulebase(8);
      Rulebase base = start;
      LiveAnalysis live = new LiveAnalysis(base);
      Tried tried = new Tried(base, points);
      for (int step = 0; step < 12; step++) {
        Edit edit = step < 11 ? edits.next(base) : new Edit.Restore("the start", start);
        Map<String, View> before = views(live);
        Map<String, Reach> reachBefore = reaches(live);
        Set<String> touched = Touched.ruleIds(edit.touched(base));
        base = edit.apply(base);
        if (step % 3 == 2 && base.namesMeanAsIn(live.rulebase())) {
          RuleIndex index = live.index();
          RuleIndex.Next next = index.next(base.rules(), Set.of());
          live.move(index.relayout(next).orElseThrow());
        }
        LiveAnalysis.Changed changed = live.update(base, touched);
        String as = "seed " + seed + " step " + step + " " + edit;
        tried = tried.on(base);
        new Comparison(as, live, tried, points).run();
        views(live)
            .forEach(
                (id, now) -> {
                  if (!now.equals(before.get(id))) {
                    assertThat(changed.answers()).as("%s: %s", as, id).contains(id);
                  }
                });
        // These are few rules, so every other answer is reported.
        reaches(live)
            .forEach(
                (id, now) -> {
                  if (!now.equals(reachBefore.get(id))) {
                    assertThat(changed.reaches()).as("%s: %s", as, id).contains(id);
                  }
                });
        sameAsAnew(as, live);
      }
    }
  }

  private static Map<String, View> views(LiveAnalysis live) {
    Map<String, View> out = new HashMap<>();
    live.rulebase()
        .rules()
        .forEach(
            rule ->
                out.put(rule.id(), new View(live.standing(rule.id()), live.findings(rule.id()))));
    return out;
  }

  private static Map<String, Reach> reaches(LiveAnalysis live) {
    Map<String, Reach> out = new HashMap<>();
    live.rulebase().rules().forEach(rule -> out.put(rule.id(), live.reach(rule.id())));
    return out;
  }

  /**
   * Witnesses may differ where there are several, and so may the causes of what is redundant
   * (below), which are irreducible only; what holds and which other rules are named may not.
   */
  private static void sameAsAnew(String as, LiveAnalysis live) {
    LiveAnalysis anew = new LiveAnalysis(live.rulebase());
    assertThat(reaches(live)).as(as).isEqualTo(reaches(anew));
    for (Rule rule : live.rulebase().rules()) {
      assertThat(live.findings(rule.id()).stream().map(Finding::kind).toList())
          .as("%s: %s", as, rule)
          .isEqualTo(anew.findings(rule.id()).stream().map(Finding::kind).toList());
      assertThat(overlapped(live, rule)).as("%s: %s", as, rule).isEqualTo(overlapped(anew, rule));
    }
  }

  /** The rules that the findings of the order name: the first of all that could be named. */
  private static List<String> overlapped(LiveAnalysis live, Rule rule) {
    List<String> out = new ArrayList<>();
    for (Finding finding : live.findings(rule.id())) {
      if (finding.kind() == Finding.Kind.SHADOWED
          || finding.kind() == Finding.Kind.REDUNDANT_ABOVE) {
        out.add(finding.kind() + " " + finding.causes());
      }
      if (finding.kind() == Finding.Kind.CORRELATED || finding.kind() == Finding.Kind.GENERALISED) {
        String first = live.partners(rule.id(), finding.kind()).rules().getFirst();
        assertThat(finding.causes()).containsExactly(first);
        out.add(finding.kind() + " " + first);
      }
    }
    return out;
  }

  @Test
  void aBudgetThatRunsOutIsSaidAndNothingElseIsWrong() {
    int undecided = 0;
    for (int seed = 0; seed < Rounds.of(400); seed++) {
      Rulebase base = new SmallWorld(seed).rulebase(9);
      LiveAnalysis full = new LiveAnalysis(base);
      LiveAnalysis hasty = new LiveAnalysis(base, 6);
      for (Rule rule : base.rules()) {
        switch (hasty.standing(rule.id())) {
          case Standing.Undecided open -> {
            undecided++;
            assertThat(open.steps()).isEqualTo(6);
          }
          case Standing.Covered covered -> {
            Standing.Covered exact = (Standing.Covered) full.standing(rule.id());
            assertThat(covered.kind()).isEqualTo(exact.kind());
            assertThat(covered.causes().size()).isGreaterThanOrEqualTo(exact.causes().size());
            if (covered.smallest()) {
              assertThat(covered.causes()).hasSameSizeAs(exact.causes());
            }
          }
          case Standing other ->
              assertThat(other.getClass()).isEqualTo(full.standing(rule.id()).getClass());
        }
        List<Finding.Kind> known = full.findings(rule.id()).stream().map(Finding::kind).toList();
        assertThat(hasty.findings(rule.id()).stream().map(Finding::kind))
            .filteredOn(kind -> kind != Finding.Kind.UNDECIDED)
            .as("seed %d, %s", seed, rule)
            .isSubsetOf(known);
      }
    }
    assertThat(undecided).isGreaterThanOrEqualTo(Rounds.of(400) / 200);
  }

  /** Under any budget: proven findings stay, open ones are UNDECIDED, cut lists are incomplete. */
  @Test
  void anyBudgetTellsWhatIsProvenAndWhatIsOpen() {
    int unproven = 0;
    int partial = 0;
    for (int seed = 0; seed < Rounds.of(150); seed++) {
      Rulebase base = new SmallWorld(seed).rulebase(9);
      LiveAnalysis full = new LiveAnalysis(base);
      for (int steps : new int[] {0, 1, 2, 4, 8, 16, 32, 64}) {
        LiveAnalysis hasty = new LiveAnalysis(base, steps);
        for (Rule rule : base.rules()) {
          String as = "seed %d, %d steps, %s".formatted(seed, steps, rule.id());
          List<Finding> findings = hasty.findings(rule.id());
          List<Finding.Kind> kinds = findings.stream().map(Finding::kind).toList();
          List<Finding.Kind> known = full.findings(rule.id()).stream().map(Finding::kind).toList();
          assertThat(kinds).as(as).filteredOn(k -> k != Finding.Kind.UNDECIDED).isSubsetOf(known);
          if (!kinds.contains(Finding.Kind.UNDECIDED)) {
            assertThat(kinds).as(as).containsExactlyElementsOf(known);
          }
          for (Finding finding : findings) {
            boolean open = finding.minimality() == Minimality.UNPROVEN;
            if (open && finding.kind() != Finding.Kind.UNDECIDED) {
              unproven++;
              assertThat(finding.causes()).as(as).isNotEmpty();
            }
          }
          for (Finding.Kind kind : List.of(Finding.Kind.CORRELATED, Finding.Kind.GENERALISED)) {
            LiveAnalysis.Partners all = full.partners(rule.id(), kind);
            LiveAnalysis.Partners some = hasty.partners(rule.id(), kind);
            assertThat(all.complete()).as(as).isTrue();
            assertThat(all.rules()).as(as).containsAll(some.rules());
            partial += some.complete() ? 0 : 1;
          }
        }
      }
    }
    assertThat(unproven).as("causes that may not be minimal").isPositive();
    assertThat(partial).as("partners that may not be all").isPositive();
  }
}
