package dev.ironsieve.core.reach;

import dev.ironsieve.core.cover.BoxPartition;
import dev.ironsieve.core.cover.BoxPartition.PlacedBox;
import dev.ironsieve.core.cover.BoxPartition.Region;
import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The answer to a reach question as a table: which rule decides which part of the connections that
 * were asked about. The rules stand in order, the default rule last.
 *
 * @param asked the connections of the question, as disjoint boxes
 * @param lines together they hold every connection of the question, each once
 * @param complete whether these are all lines; if not, the budget ran out
 */
public record ReachTable(List<Box> asked, List<Line> lines, boolean complete) {
  /** Steps for one question; a step is one comparison of a box with another. */
  public static final long STEPS = 2_000_000;

  /** Most lines for one box of one rule; with more, the rules that take from it are named. */
  private static final int MOST_PARTS = 6;

  /** Rules above a box from which on no exact parts are tried. */
  private static final int MOST_ABOVE = 60;

  /**
   * A part of the question that one rule decides.
   *
   * @param rule the rule that decides; null for the default rule
   * @param box the connections
   * @param except the rules above that decide some connections of the box; empty if the rule
   *     decides all of it
   * @param point one connection that the rule decides
   */
  public record Line(Rule rule, Box box, List<Rule> except, int[] point) {
    public Line {
      except = List.copyOf(except);
    }

    /** The verdict on its connections. */
    public Verdict verdict() {
      return DefaultRule.verdict(rule);
    }
  }

  public ReachTable {
    asked = List.copyOf(asked);
    lines = List.copyOf(lines);
  }

  /**
   * Asks what decides the connections of a pattern. For each rule that meets it one partition into
   * at most {@value #MOST_PARTS} boxes, or one cover search.
   *
   * @param pattern a rule whose criteria are the question; nothing else of it counts
   * @param steps of work for the whole question
   * @throws IllegalStateException if the index has no room left to tell the pattern apart, and has
   *     to be made anew first
   */
  public static ReachTable ask(RuleIndex index, Rule pattern, long steps) {
    List<Box> region = regionOf(index, pattern);
    return new Asking(index, new Budget(steps)).answer(region);
  }

  /**
   * What of the question a line holds, in words: for each axis that the line narrows within the
   * question the values, by the word for the axis. Empty if it holds all of the question.
   *
   * @param space of the index that was asked
   */
  public Map<String, String> words(Line line, Space space) {
    Map<String, String> out = new LinkedHashMap<>();
    for (int axis = 0; axis < line.box.axes(); axis++) {
      IntSet all = IntSet.EMPTY;
      for (Box box : asked) {
        all = all.union(box.side(axis));
      }
      if (!line.box.side(axis).containsAll(all)) {
        out.put(space.name(axis), space.values(axis, line.box.side(axis), all));
      }
    }
    return out;
  }

  /**
   * The connections of a pattern, as boxes.
   *
   * @throws IllegalStateException as {@link #ask}
   */
  public static List<Box> regionOf(RuleIndex index, Rule pattern) {
    return index
        .space()
        .region(index.resolution().match(pattern))
        .orElseThrow(() -> new IllegalStateException("no room to tell the question apart"));
  }

  /** The rule that decides a point, if it is another one than this. */
  static int otherThan(RuleIndex index, int handle, int[] point) {
    int first = index.first(point);
    return first == handle ? CoverSearch.Holder.NOBODY : first;
  }

  /** One question that is being answered. */
  private record Asking(RuleIndex index, Budget budget) {
    ReachTable answer(List<Box> region) {
      List<Line> lines = new ArrayList<>();
      boolean complete = true;
      int[] rules = index.overlapping(region, 0, index.size());
      for (int i = 0; i <= rules.length; i++) {
        int handle = i == rules.length ? RuleIndex.NONE : rules[i];
        List<Line> ofRule = new ArrayList<>();
        for (Box box :
            handle == RuleIndex.NONE ? region : Box.shared(region, index.region(handle))) {
          complete &= add(handle, box, ofRule);
        }
        lines.addAll(joined(ofRule));
      }
      return new ReachTable(region, lines, complete);
    }

    /** False if the budget ran out. */
    private boolean add(int handle, Box box, List<Line> out) {
      Rule rule = handle == RuleIndex.NONE ? null : index.rule(handle);
      int end = handle == RuleIndex.NONE ? index.size() : index.position(handle);
      int[] above = index.overlapping(List.of(box), 0, end);
      if (above.length <= MOST_ABOVE) {
        Optional<List<PlacedBox>> parts = parts(box, above);
        if (parts.isPresent()) {
          parts.get().forEach(part -> out.add(new Line(rule, part.box(), List.of(), part.point())));
          return true;
        }
      }
      Outcome outcome =
          CoverSearch.search(
              List.of(box), point -> otherThan(index, handle, point), index::region, budget);
      return switch (outcome) {
        case Outcome.Uncovered found -> {
          Set<Rule> except = new LinkedHashSet<>();
          Arrays.stream(above).mapToObj(index::rule).forEach(except::add);
          out.add(new Line(rule, box, List.copyOf(except), found.point()));
          yield true;
        }
        case Outcome.Covered covered -> true;
        case Outcome.Exhausted exhausted -> false;
      };
    }

    /** The parts of a box that no rule above holds; empty if there are too many. */
    private Optional<List<PlacedBox>> parts(Box box, int[] above) {
      List<Box> known = new ArrayList<>();
      for (int handle : above) {
        for (Box taken : index.region(handle)) {
          if (taken.containsAll(box)) {
            return Optional.of(List.of());
          }
          if (taken.intersects(box)) {
            known.add(taken);
          }
        }
      }
      if (known.isEmpty()) {
        return Optional.of(List.of(new PlacedBox(box, box.lowest())));
      }
      int[] all = new int[known.size()];
      Arrays.setAll(all, i -> i);
      Region open = new Region.Wanted(BoxPartition.ANYWHERE, all);
      return BoxPartition.partition(
          box, known, all, point -> open, new int[0][], MOST_PARTS, budget);
    }

    /** The lines with each pair joined that differs in the address family only. */
    private List<Line> joined(List<Line> lines) {
      List<Line> out = new ArrayList<>();
      List<Line> left = new ArrayList<>(lines);
      while (!left.isEmpty()) {
        Line line = left.removeFirst();
        Optional<Line> twin =
            left.stream().filter(other -> differByFamily(line.box, other.box)).findFirst();
        twin.ifPresent(left::remove);
        out.add(twin.map(other -> joined(line, other)).orElse(line));
      }
      return out;
    }

    /** Both lines as one; no connection has addresses of two families, so this adds none. */
    private static Line joined(Line one, Line other) {
      Box box = one.box;
      for (int axis : new int[] {Space.FROM, Space.TO}) {
        box = box.with(axis, box.side(axis).union(other.box.side(axis)));
      }
      Set<Rule> except = new LinkedHashSet<>(one.except);
      except.addAll(other.except);
      return new Line(one.rule, box, List.copyOf(except), one.point);
    }

    private boolean differByFamily(Box one, Box other) {
      if (familyOf(one) == familyOf(other)) {
        return false;
      }
      for (int axis = 0; axis < one.axes(); axis++) {
        boolean end = axis == Space.FROM || axis == Space.TO;
        if (!end && !one.side(axis).equals(other.side(axis))) {
          return false;
        }
      }
      return true;
    }

    private Family familyOf(Box box) {
      return index.space().family(box.side(Space.FROM).min());
    }
  }
}
