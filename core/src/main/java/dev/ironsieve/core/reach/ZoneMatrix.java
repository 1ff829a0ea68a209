package dev.ironsieve.core.reach;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.List;

/**
 * How much is open from each zone to each other one: the share of the services that are open to
 * some source. O(zones² · rules that let through) cover searches at worst; a rule whose services
 * are known to be open already needs none.
 *
 * @param cells by source zone, then by destination zone
 */
public record ZoneMatrix(List<String> zones, List<Cell> cells) {
  private static final long STEPS = 200_000; // for one cell

  private static final Rule ANY = Rule.matchingAll("question", "question", Verdict.ALLOW);

  /**
   * The connections from one zone to another.
   *
   * @param open the number of kinds of services, as the rules tell them apart, of which some
   *     connection is let through
   * @param of the number of all kinds
   * @param exact whether that is all; if not, the budget ran out
   * @param rules ids of rules that open a kind which no rule above opens, in order
   */
  public record Cell(String from, String to, int open, int of, boolean exact, List<String> rules) {
    public Cell {
      rules = List.copyOf(rules);
    }
  }

  public ZoneMatrix {
    zones = List.copyOf(zones);
    cells = List.copyOf(cells);
  }

  /**
   * The matrix of some zones.
   *
   * @throws IllegalStateException if the index has no room left to tell a zone apart, and has to be
   *     made anew first
   */
  public static ZoneMatrix of(RuleIndex index, List<String> zones) {
    List<Cell> cells = new ArrayList<>();
    for (String from : zones) {
      for (String to : zones) {
        cells.add(cell(index, from, to));
      }
    }
    return new ZoneMatrix(zones, cells);
  }

  private static Cell cell(RuleIndex index, String from, String to) {
    Rule pattern =
        ANY.matching(
            Criterion.of(from), Criterion.any(), Criterion.of(to), Criterion.any(), ANY.services());
    List<Box> region = ReachTable.regionOf(index, pattern);
    Budget budget = new Budget(STEPS);
    IntSet open = IntSet.EMPTY;
    boolean exact = true;
    List<String> opening = new ArrayList<>();
    for (int handle : index.overlapping(region, 0, index.size())) {
      if (index.verdict(handle).letsThrough()) {
        IntSet before = open;
        for (Box box : Box.shared(region, index.region(handle))) {
          ReachQuestion.Values found =
              ReachQuestion.values(index, handle, box, Space.SERVICE, open, budget);
          open = open.union(found.codes());
          exact &= found.complete();
        }
        if (!open.equals(before)) {
          opening.add(index.rule(handle).id());
        }
      }
    }
    Space space = index.space();
    int kinds = space.classes(Space.SERVICE);
    return new Cell(from, to, (int) space.count(Space.SERVICE, open), kinds, exact, opening);
  }
}
