package dev.ironsieve.core.ruleindex;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Resolution;
import dev.ironsieve.core.space.ResolvedMatch;
import dev.ironsieve.core.space.Space;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.function.IntPredicate;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * The rules of one rulebase in their order, laid into a space. A rule is meant by its handle, a
 * number that it keeps as long as its criteria, its verdict and its place among the others stay;
 * its position is its present place, from 0.
 *
 * <p>Questions may be asked by several threads at once, but not during an update.
 */
public final class RuleIndex {
  /** Stands for no rule: then the default rule decides. */
  public static final int NONE = -1;

  private Resolution resolution;
  private final Space space;
  private final RuleTable table;
  private final FirstMatch firstMatch;
  private final OverlapIndex overlapping;
  private boolean asBuilt = true; // boxes are numbered by position

  public RuleIndex(Rulebase rulebase) {
    this(new Resolution(rulebase), rulebase.rules());
  }

  /**
   * @param day from which on times count; null for ever
   */
  public RuleIndex(Rulebase rulebase, LocalDate day) {
    this(new Resolution(rulebase, day), rulebase.rules());
  }

  private RuleIndex(Resolution resolution, List<Rule> all) {
    this(resolution, all, matches(resolution, all));
  }

  private RuleIndex(Resolution resolution, List<Rule> all, List<ResolvedMatch> matches) {
    this(resolution, all, matches, new Space(resolution, matches));
  }

  /**
   * @param resolution knows the names in {@code all}
   * @param all the rules in order
   * @param space its axes are cut at the borders of their matches
   */
  public RuleIndex(Resolution resolution, List<Rule> all, Space space) {
    this(resolution, all, matches(resolution, all), space);
  }

  private RuleIndex(Resolution resolution, List<Rule> all, List<ResolvedMatch> found, Space space) {
    this(resolution, all, found, space.regions(found), space);
  }

  private RuleIndex(
      Resolution resolution,
      List<Rule> all,
      List<ResolvedMatch> found,
      List<List<Box>> regions,
      Space space) {
    this.resolution = resolution;
    this.space = space;
    table = new RuleTable();
    int[] order = new int[all.size()];
    for (int i = 0; i < order.length; i++) {
      order[i] = table.add(all.get(i), found.get(i), regions.get(i));
    }
    table.place(order);
    CompletableFuture<OverlapIndex> aside =
        CompletableFuture.supplyAsync(() -> new OverlapIndex(space, table.boxes()));
    firstMatch = new FirstMatch(space, table.boxes(), table::positionOfBox, all.size());
    overlapping = aside.join();
  }

  /**
   * A space whose axes are cut at the borders of the matches of some rules.
   *
   * @param others more matches to tell apart, of rules with the same zones and values
   */
  public static Space space(Resolution resolution, List<Rule> all, List<ResolvedMatch> others) {
    List<ResolvedMatch> matches = new ArrayList<>(matches(resolution, all));
    matches.addAll(others);
    return new Space(resolution, matches);
  }

  private static List<ResolvedMatch> matches(Resolution resolution, List<Rule> all) {
    return all.parallelStream().map(resolution::match).toList();
  }

  /** The same rules in the same space, to be updated on its own. */
  private RuleIndex(RuleIndex other) {
    resolution = other.resolution;
    space = other.space;
    table = new RuleTable(other.table);
    asBuilt = other.asBuilt;
    firstMatch = new FirstMatch(other.firstMatch, table.boxes(), table::positionOfBox);
    overlapping = new OverlapIndex(other.overlapping);
  }

  /** The same rules in the same space, which stay as they are when this order is updated. */
  public RuleIndex snapshot() {
    return new RuleIndex(this);
  }

  /**
   * An index of other rules in the same space, for a comparison. Rules with the same match and
   * effect keep their handles, and their structures are shared.
   *
   * @param next rules with the same meaning of names
   * @return empty if there is no room for it
   */
  public Optional<RuleIndex> with(List<Rule> next) {
    RuleIndex other = new RuleIndex(this);
    return other.update(next, moved(next)).map(change -> other);
  }

  /** Ids of the fewest rules to treat as moved, so that all others keep their relative order. */
  private Set<String> moved(List<Rule> next) {
    int[] both =
        IntStream.range(0, next.size())
            .map(i -> table.handle(next.get(i), i))
            .filter(handle -> handle != NONE)
            .toArray();
    BitSet kept =
        LongestIncreasingSubsequence.longest(
            Arrays.stream(both).map(handle -> position(handle)).toArray());
    return IntStream.range(0, both.length)
        .filter(i -> !kept.get(i))
        .mapToObj(i -> rule(both[i]).id())
        .collect(Collectors.toSet());
  }

  /**
   * The same rules, laid out anew; the handle of each is its position.
   *
   * @param points the point in which the connections of a point are now
   * @param axes on which codes may be others than before
   */
  public record Relayout(RuleIndex index, UnaryOperator<int[]> points, int[] axes) {}

  /**
   * Lays the rules out anew, without remains of removed rules and with room for new classes.
   *
   * @param next the next state, whose classes are included
   */
  public Optional<Relayout> relayout(Next next) {
    List<ResolvedMatch> found = table.matchesInOrder();
    List<ResolvedMatch> apart = new ArrayList<>(found);
    for (Rule rule : next.rules) {
      int handle = handle(rule.id());
      if (handle == NONE || next.isOther(rule) || !rule(handle).matchesLike(rule)) {
        apart.add(next.names.match(rule));
      }
    }
    return relayout(resolution, found, new Space(resolution, apart));
  }

  /** The same rules in another space; empty if a point has none there. */
  private Optional<Relayout> relayout(Resolution names, List<ResolvedMatch> found, Space fresh) {
    List<Rule> all = table.rulesInOrder();
    int[] axes =
        IntStream.range(0, fresh.axes()).filter(axis -> !fresh.shares(axis, space)).toArray();
    return space
        .pointsIn(fresh, all)
        .map(
            points ->
                new Relayout(
                    new RuleIndex(names, all, found, fresh.regions(found), fresh), points, axes));
  }

  /**
   * Lays the rules out anew on the axes whose classes of hosts, times or device states change. This
   * index must not be used afterwards.
   *
   * @param rulebase in which the names of these rules have the same meaning
   * @return empty if it has other coordinates, or the names differ
   */
  public Optional<Relayout> in(Rulebase rulebase) {
    if (!coordinates(rulebase.vocabularies()).equals(coordinates(resolution.vocabularies()))) {
      return Optional.empty();
    }
    Resolution names = new Resolution(rulebase, resolution);
    List<ResolvedMatch> found = matches(names, table.rulesInOrder());
    return relayout(names, found, new Space(names, found, space));
  }

  private static List<Coordinate> coordinates(List<Vocabulary> vocabularies) {
    return vocabularies.stream().map(Vocabulary::coordinate).toList();
  }

  public Space space() {
    return space;
  }

  public Resolution resolution() {
    return resolution;
  }

  /** The number of rules. */
  public int size() {
    return table.size();
  }

  /** One more than the highest handle that was ever given. */
  public int handles() {
    return table.handles();
  }

  public int handleAt(int position) {
    return table.handleAt(position);
  }

  /** The handle of a rule by its id, or {@link #NONE}. */
  public int handle(String id) {
    return table.handle(id);
  }

  /** The place of a rule, from 0; -1 if it is no longer there. */
  public int position(int handle) {
    return table.position(handle);
  }

  public Rule rule(int handle) {
    return table.rule(handle);
  }

  /** A rule's criteria with every name looked up. */
  public ResolvedMatch match(int handle) {
    return table.match(handle);
  }

  /** The feasible connections that a rule matches, as disjoint boxes. */
  public List<Box> region(int handle) {
    return table.region(handle);
  }

  /** Whether a point, of which terms may be unknown, is in a rule's region. */
  public boolean holds(int handle, int[] point) {
    for (Box box : table.region(handle)) {
      if (holds(box, point)) {
        return true;
      }
    }
    return false;
  }

  private boolean holds(Box box, int[] point) {
    for (int axis = 0; axis < point.length; axis++) {
      if (!space.holds(box, axis, point)) {
        return false;
      }
    }
    return true;
  }

  /** The enabled rule that decides a point, or {@link #NONE}. */
  public int first(int[] point) {
    return firstFrom(0, point);
  }

  /** The enabled rule that decides a point; null if the default rule does. */
  public Rule ruleAt(int[] point) {
    int handle = first(point);
    return handle == NONE ? null : rule(handle);
  }

  /** Some rules, those that stand last first. */
  public int[] latestFirst(IntSet handles) {
    return Arrays.stream(handles.toArray())
        .mapToLong(handle -> (long) -position(handle) << 32 | handle)
        .sorted()
        .mapToInt(packed -> (int) packed)
        .toArray();
  }

  /** The first enabled rule at {@code position} or behind that holds a point, or {@link #NONE}. */
  public int firstFrom(int position, int[] point) {
    int box = firstMatch.find(point, position);
    return box < 0 ? NONE : table.ruleOf(box);
  }

  /**
   * The first enabled rules that hold a point and stand above a place, in order; one look-up for
   * all.
   *
   * @param most how many at most
   */
  public int[] holdingAbove(int position, int[] point, int most) {
    IntList boxes = new IntList();
    firstMatch.holding(point, position, most, boxes::add);
    long[] all = new long[boxes.size()];
    for (int i = 0; i < all.length; i++) {
      int box = boxes.get(i);
      all[i] = (long) table.positionOfBox(box) << 32 | table.ruleOf(box);
    }
    Arrays.sort(all);
    int[] rules = new int[Math.min(most, all.length)];
    for (int i = 0; i < rules.length; i++) {
      rules[i] = (int) all[i];
    }
    return rules;
  }

  /** The enabled rule that decides a point when a rule is not there, or {@link #NONE}. */
  public int firstWithout(int handle, int[] point) {
    int first = first(point);
    return first == handle ? firstFrom(position(handle) + 1, point) : first;
  }

  /** The verdict of a rule; for {@link #NONE} that of the default rule. */
  public Verdict verdict(int handle) {
    return handle == NONE ? DefaultRule.verdict(null) : table.verdict(handle);
  }

  /** The enabled rules that meet one of some boxes. */
  public OverlapQuery overlaps(List<Box> wanted) {
    return new OverlapQuery(this, wanted);
  }

  /**
   * The enabled rules that meet one of some boxes, by position.
   *
   * @param from lowest position wanted
   * @param to one more than the highest position wanted
   */
  public int[] overlapping(List<Box> wanted, int from, int to) {
    return overlapping(wanted, from, to, handle -> true);
  }

  /**
   * @param which only rules for which this holds are wanted
   */
  public int[] overlapping(List<Box> wanted, int from, int to, IntPredicate which) {
    return new OverlapQuery(this, wanted).all(from, to, which);
  }

  /** The cells in which all boxes stand that meet a narrow box; null if it is not narrow. */
  List<FirstMatch.Look> cells(Box box) {
    // After an update, cells that it concerned are made again only when a point asks for them.
    return firstMatch.cells(box, asBuilt);
  }

  OverlapIndex.Query query(Box box, int limit) {
    return overlapping.query(box, limit);
  }

  Box box(int number) {
    return table.boxes().get(number);
  }

  /** The handle of a box's rule. */
  int ruleOf(int number) {
    return table.ruleOf(number);
  }

  /** No box of a rule at the position or below has a number below this. */
  int firstBoxAt(int position) {
    return asBuilt ? boxesBefore(position) : 0;
  }

  /** No box of a rule above the position has this number or a higher one. */
  int endOfBoxesAbove(int position) {
    return asBuilt ? boxesBefore(position) : table.boxes().size();
  }

  private int boxesBefore(int position) {
    return position < size() ? table.firstBox(handleAt(position)) : table.boxes().size();
  }

  /**
   * The changes of an update.
   *
   * @param gone handles of rules that are no longer there, with the positions that they had
   * @param fresh handles of rules that are new
   * @param reworded handles of rules of which something changed that decides nothing
   */
  public record Change(Map<Integer, Integer> gone, List<Integer> fresh, List<Integer> reworded) {}

  /**
   * The next state of the rules.
   *
   * @param moved ids of rules whose place among the others may have changed
   * @param names tells the same zones and values apart as now
   * @param others ids of rules whose names may mean something else than now
   */
  public record Next(List<Rule> rules, Set<String> moved, Resolution names, Set<String> others) {
    boolean isOther(Rule rule) {
      return !others.isEmpty() && others.contains(rule.id());
    }
  }

  /** The next state, with rules whose names keep their meaning. */
  public Next next(List<Rule> rules, Set<String> moved) {
    return new Next(rules, moved, resolution, Set.of());
  }

  /**
   * Updates the index to the next state of the rules. A rule that now matches or decides otherwise,
   * or that was moved, counts as gone and as fresh.
   *
   * @return empty if there is no room for it: then the rules have to be laid out anew, see {@link
   *     #relayout}
   */
  public Optional<Change> update(Next next) {
    return RuleIndexUpdate.of(table, space, next)
        .map(
            update -> {
              resolution = next.names;
              space.takeOver(resolution);
              asBuilt = false;
              return update.apply(this::removeBox, this::addBox);
            });
  }

  private void addBox(int box) {
    firstMatch.add(box);
    overlapping.add(box, table.boxes().get(box));
  }

  private void removeBox(int box) {
    overlapping.remove(box);
    firstMatch.remove(box);
  }

  /** The same for rules whose names keep their meaning. */
  public Optional<Change> update(List<Rule> rules, Set<String> moved) {
    return update(next(rules, moved));
  }
}
