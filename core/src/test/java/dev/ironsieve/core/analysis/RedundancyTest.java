package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.analysis.Certificate.RedundancyProof;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** Whether a rule matters: what is found without a search, and who is blamed if it does not. */
class RedundancyTest {
  private static Rule rule(String id, Verdict verdict, int... ports) {
    return TcpRules.rule(id, verdict, ports);
  }

  private static int[] ports(int first, int last) {
    return IntStream.rangeClosed(first, last).toArray();
  }

  private static RuleIndex index(List<Rule> rules) {
    return new RuleIndex(
        new Rulebase("b", List.of(), List.of(), List.of(), List.of(new Section("s", "S", rules))));
  }

  /** What is found about the first rule, which decides all of its match. */
  private static RedundancyProof first(RuleIndex index, long steps) {
    List<Box> region = index.region(0);
    return new Redundancy(new Questions(index, steps))
        .of(
            0,
            region.getFirst().lowest(),
            index.overlaps(region),
            LeastCoveredPoint.upTo(index, 1)[0]);
  }

  /** Without a step for a search. */
  private static RedundancyProof guessed(Rule... rules) {
    return first(index(List.of(rules)), 0);
  }

  private static void matters(RedundancyProof found, RuleIndex index, int next) {
    assertThat(found).isInstanceOf(RedundancyProof.Matters.class);
    RedundancyProof.Matters matters = (RedundancyProof.Matters) found;
    assertThat(index.first(matters.point())).isZero();
    assertThat(index.firstFrom(1, matters.point())).isEqualTo(next).isEqualTo(matters.next());
  }

  @Test
  void theRulesThatWouldTakeItsPlaceAreTriedBeforeASearch() {
    Rule target = rule("target", Verdict.DROP, ports(1, 9));
    Rule low = rule("low", Verdict.DROP, ports(1, 5));
    Rule middle = rule("middle", Verdict.DROP, ports(4, 8));
    Rule all = rule("all", Verdict.ALLOW, ports(1, 9));
    matters(guessed(target, low, middle, all), index(List.of(target, low, middle, all)), 3);
    // The first that would is kept off, the next is not.
    Rule kept = rule("kept", Verdict.ALLOW, ports(1, 3));
    Rule nine = rule("nine", Verdict.ALLOW, 9);
    matters(guessed(target, low, kept, nine), index(List.of(target, low, kept, nine)), 3);
    assertThat(guessed(target, low, kept)).isInstanceOf(RedundancyProof.Undecided.class);
  }

  @Test
  void rulesThatSayTheSameAreNotTriedInTheirPlace() {
    List<Rule> rules = new ArrayList<>();
    rules.add(rule("target", Verdict.DROP, ports(1, 9)));
    for (int i = 0; i < 80; i++) {
      rules.add(rule("same" + i, Verdict.DROP, ports(1, 8)));
    }
    rules.add(rule("all", Verdict.ALLOW, ports(1, 9)));
    RuleIndex index = index(rules);
    matters(first(index, 0), index, 81);
  }

  @Test
  void ofTheRulesThatKeepAllOthersOffTheLatestAreLeftOut() {
    List<Rule> rules = new ArrayList<>();
    rules.add(rule("target", Verdict.ALLOW, ports(1, 4)));
    rules.add(rule("early", Verdict.ALLOW, 1, 2));
    rules.add(rule("middle", Verdict.ALLOW, 2, 3));
    rules.add(rule("late", Verdict.ALLOW, 1, 3, 4));
    for (int port : new int[] {1, 3, 4, 2}) { // which bring in one after the other
      rules.add(rule("rival" + port, Verdict.DROP, port));
    }
    // With the late rule, either of the others is enough.
    RedundancyProof found = first(index(rules), LiveAnalysis.STEPS);
    assertThat(found).isInstanceOf(RedundancyProof.Redundant.class);
    assertThat(((RedundancyProof.Redundant) found).causes()).containsExactly(1, 3);
  }

  @Test
  void aBudgetThatRunsOutNeverMakesAnotherAnswer() {
    Rule target = rule("target", Verdict.ALLOW, ports(1, 9));
    List<Rule> redundant =
        List.of(
            target,
            rule("low", Verdict.ALLOW, ports(1, 3)),
            rule("rival", Verdict.DROP, 2, 3, 4, 5),
            rule("wide", Verdict.ALLOW, ports(1, 8)),
            rule("last", Verdict.ALLOW, ports(8, 9)));
    // Without "low", the rival takes two; port 4 it takes anyway.
    assertThat(first(index(redundant), LiveAnalysis.STEPS))
        .isInstanceOf(RedundancyProof.Matters.class);
    List<Rule> all = new ArrayList<>(redundant);
    all.set(2, rule("rival", Verdict.DROP, 2, 3));
    RuleIndex index = index(all);
    RedundancyProof whole = first(index, LiveAnalysis.STEPS);
    assertThat(whole).isInstanceOf(RedundancyProof.Redundant.class);
    boolean open = false;
    for (long steps = 0; steps < 60; steps++) {
      RedundancyProof found = first(index, steps);
      open |= found instanceof RedundancyProof.Undecided;
      if (found instanceof RedundancyProof.Redundant redundantThen) {
        assertThat(redundantThen.causes()).isEqualTo(((RedundancyProof.Redundant) whole).causes());
      } else {
        assertThat(found).isInstanceOf(RedundancyProof.Undecided.class);
      }
    }
    assertThat(open).isTrue();
  }
}
