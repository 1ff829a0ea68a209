package dev.ironsieve.core.checks;

import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/**
 * Connections that touch every rule and every corner: among them is one that would get another
 * verdict if a rule did something else, were disabled, changed places with the next, or no longer
 * asked for one of the things that it asks for; for every such mistake that would show at all.
 *
 * @param checks the connections with the verdicts that they get now; leave one out and some mistake
 *     no longer shows. That there is no smaller set is not proved (it is a smallest hitting set).
 * @param atLeast no set of fewer connections can do it: so many rules decide something, and one
 *     connection is decided by one rule
 * @param harmless mistakes that no connection shows
 * @param undecided mistakes for which the budget ran out
 */
public record TestPoints(
    List<Check> checks, int atLeast, List<Mutant> harmless, List<Mutant> undecided) {
  /** Comparisons of boxes that one search may take. */
  public static final long STEPS = 2_000_000;

  /** The points for a rulebase. */
  public static TestPoints of(Rulebase rulebase) {
    return of(new RuleIndex(rulebase), STEPS);
  }

  /**
   * @param steps comparisons of boxes that one search may take
   */
  public static TestPoints of(RuleIndex index, long steps) {
    return of(index, steps, null);
  }

  /**
   * The points for some rules of a rulebase.
   *
   * @param steps comparisons of boxes that one search may take
   * @param rules ids of the rules whose mistakes have to show; null for all
   */
  public static TestPoints of(RuleIndex index, long steps, Set<String> rules) {
    Mutants mutants = new Mutants(index, steps, rules);
    List<Mutant> harmless = new ArrayList<>();
    List<Mutant> undecided = new ArrayList<>();
    List<int[]> points = new ArrayList<>();
    List<List<Integer>> shown = new ArrayList<>(); // by point
    int[] shownBy = new int[mutants.size()]; // how many points show it
    int deciding = 0;
    for (int i = 0; i < mutants.size(); i++) {
      if (shownBy[i] == 0) {
        switch (mutants.witness(i)) {
          case Outcome.Uncovered found -> {
            points.add(found.point());
            shown.add(mutants.shownBy(found.point()));
            shown.getLast().forEach(number -> shownBy[number]++);
          }
          case Outcome.Covered covered -> harmless.add(mutants.get(i));
          case Outcome.Exhausted exhausted -> undecided.add(mutants.get(i));
        }
      }
      deciding += mutants.get(i) instanceof Mutant.OtherVerdict && shownBy[i] > 0 ? 1 : 0;
    }
    List<Check> checks = new ArrayList<>();
    for (int p = 0; p < points.size(); p++) {
      if (shown.get(p).stream().allMatch(number -> shownBy[number] > 1)) {
        shown.get(p).forEach(number -> shownBy[number]--);
      } else {
        checks.add(check(index, points.get(p)));
      }
    }
    return new TestPoints(
        List.copyOf(checks), deciding, List.copyOf(harmless), List.copyOf(undecided));
  }

  private static Check check(RuleIndex index, int[] point) {
    return new Check(index.space().connection(point), index.verdict(index.first(point)));
  }
}
