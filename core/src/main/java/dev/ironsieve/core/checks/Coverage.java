package dev.ironsieve.core.checks;

import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/**
 * The mutants of a rulebase that a set of checks kills, and those that it misses.
 *
 * @param noticed mistakes that make a check fail
 * @param missed mistakes that none of the checks shows, each with a connection that would
 * @param harmless mistakes that no connection shows; they count neither way
 * @param undecided mistakes that none of the checks shows, and for which the budget ran out
 * @param failing checks that fail without any mistake; they notice nothing
 * @param vague checks of which something is unknown that a rule asks for; they notice nothing
 */
public record Coverage(
    List<Mutant> noticed,
    List<Missed> missed,
    List<Mutant> harmless,
    List<Mutant> undecided,
    List<Check> failing,
    List<Check> vague) {

  /** A mistake that would go by, and a connection that shows it. */
  public record Missed(Mutant mutant, Connection witness) {}

  /** The share of the detectable mutants that the checks kill: 0 to 1; 1 if none is detectable. */
  public double share() {
    int all = noticed.size() + missed.size();
    return all == 0 ? 1 : (double) noticed.size() / all;
  }

  /** Whether no rule tells the connections of a region apart. */
  private static boolean isPoint(List<Box> region, Space space) {
    if (region.size() != 1) {
      return false;
    }
    Box box = region.getFirst();
    for (int axis = 0; axis < box.axes(); axis++) {
      if (space.count(axis, box.side(axis)) != 1) {
        return false;
      }
    }
    return true;
  }

  /** The mutants of a rulebase that the checks kill. */
  public static Coverage of(Rulebase rulebase, List<Check> checks) {
    return of(new RuleIndex(rulebase), checks, TestPoints.STEPS);
  }

  /**
   * @param steps comparisons of boxes that one search may take
   */
  public static Coverage of(RuleIndex index, List<Check> checks, long steps) {
    return of(index, checks, List.of(), steps, null);
  }

  /**
   * The mutants of some rules that the checks of some connections, and of some sets of connections,
   * kill. O(rules) for a region of one point, else a cover search for each mutant whose region it
   * meets.
   *
   * @param regions of the sets; each has to get one verdict, and does
   * @param steps comparisons of boxes that one search may take
   * @param rules ids of the rules; null for all
   */
  public static Coverage of(
      RuleIndex index, List<Check> checks, List<List<Box>> regions, long steps, Set<String> rules) {
    Mutants mutants = new Mutants(index, steps, rules);
    boolean[] shown = new boolean[mutants.size()];
    List<Check> failing = new ArrayList<>();
    List<Check> vague = new ArrayList<>();
    for (Check check : checks) {
      int[] point = index.space().point(check.connection());
      if (point == null) {
        vague.add(check);
      } else if (index.verdict(index.first(point)) != check.expected()) {
        failing.add(check);
      } else {
        mutants.shownBy(point).forEach(number -> shown[number] = true);
      }
    }
    for (List<Box> region : regions) {
      if (isPoint(region, index.space())) {
        mutants.shownBy(region.getFirst().lowest()).forEach(number -> shown[number] = true);
        continue;
      }
      for (int number = 0; number < shown.length; number++) {
        shown[number] = shown[number] || mutants.showsIn(number, region);
      }
    }
    List<Mutant> noticed = new ArrayList<>();
    List<Missed> missed = new ArrayList<>();
    List<Mutant> harmless = new ArrayList<>();
    List<Mutant> undecided = new ArrayList<>();
    for (int i = 0; i < mutants.size(); i++) {
      Mutant mutant = mutants.get(i);
      if (shown[i]) {
        noticed.add(mutant);
        continue;
      }
      switch (mutants.witness(i)) {
        case Outcome.Uncovered found ->
            missed.add(new Missed(mutant, index.space().connection(found.point())));
        case Outcome.Covered covered -> harmless.add(mutant);
        case Outcome.Exhausted exhausted -> undecided.add(mutant);
      }
    }
    return new Coverage(noticed, missed, harmless, undecided, failing, vague);
  }
}
