package dev.ironsieve.core.ruleindex;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Relabelling;
import dev.ironsieve.core.space.Resolution;
import dev.ironsieve.core.space.ResolvedMatch;
import dev.ironsieve.core.space.Space;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
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

  /** An update in place leaves at most this share of handles unused. */
  private static final int MOST_UNUSED = 3;

  private Resolution resolution;
  private final Space space;
  private final List<Rule> rules = new ArrayList<>(); // by handle
  private final List<Verdict> verdicts = new ArrayList<>(); // by handle
  private final List<ResolvedMatch> matches = new ArrayList<>(); // by handle
  private final List<List<Box>> regions = new ArrayList<>(); // by handle
  private final Map<String, Integer> handles = new HashMap<>(); // by id, rules in force
  private final List<Box> boxes = new ArrayList<>(); // of enabled rules
  private final IntList ruleOf; // handle by box
  private final IntList firstBox; // by handle
  private int[] handleAt; // by position
  private int[] positionOf; // by handle; -1 if gone
  private int[] positionOfBox = {};
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
   * @param space tells apart whatever they match
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
    ruleOf = new IntList();
    firstBox = new IntList();
    handleAt = new int[all.size()];
    for (int i = 0; i < handleAt.length; i++) {
      handleAt[i] = add(all.get(i), found.get(i), regions.get(i));
    }
    place(handleAt);
    CompletableFuture<OverlapIndex> aside =
        CompletableFuture.supplyAsync(() -> new OverlapIndex(space, boxes));
    firstMatch = new FirstMatch(space, boxes, box -> positionOfBox[box], all.size());
    overlapping = aside.join();
  }

  /**
   * A space that tells apart whatever some rules match.
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
    rules.addAll(other.rules);
    verdicts.addAll(other.verdicts);
    matches.addAll(other.matches);
    regions.addAll(other.regions);
    handles.putAll(other.handles);
    boxes.addAll(other.boxes);
    ruleOf = new IntList(other.ruleOf);
    firstBox = new IntList(other.firstBox);
    asBuilt = other.asBuilt;
    place(other.handleAt);
    firstMatch = new FirstMatch(other.firstMatch, boxes, box -> positionOfBox[box]);
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
   * @return null if there is no room for it
   */
  public RuleIndex with(List<Rule> next) {
    RuleIndex other = new RuleIndex(this);
    return other.update(next, moved(next)) == null ? null : other;
  }

  /** Ids of the fewest rules to treat as moved, so that all others keep their relative order. */
  private Set<String> moved(List<Rule> next) {
    int[] both =
        IntStream.range(0, next.size())
            .map(i -> handle(next.get(i), i))
            .filter(handle -> handle != NONE)
            .toArray();
    BitSet kept =
        LongestIncreasingSubsequence.longest(
            Arrays.stream(both).map(handle -> positionOf[handle]).toArray());
    return IntStream.range(0, both.length)
        .filter(i -> !kept.get(i))
        .mapToObj(i -> rules.get(both[i]).id())
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
  public Relayout relayout(Next next) {
    List<ResolvedMatch> found = inOrder(matches);
    List<ResolvedMatch> apart = new ArrayList<>(found);
    for (Rule rule : next.rules) {
      int handle = handle(rule.id());
      if (handle == NONE || next.isOther(rule) || !rules.get(handle).matchesLike(rule)) {
        apart.add(next.names.match(rule));
      }
    }
    return relayout(resolution, found, new Space(resolution, apart));
  }

  /** The same rules in another space; null if a point has none there. */
  private Relayout relayout(Resolution names, List<ResolvedMatch> found, Space fresh) {
    List<Rule> all = inOrder(rules);
    UnaryOperator<int[]> points = space.pointsIn(fresh, all);
    if (points == null) {
      return null;
    }
    int[] axes =
        IntStream.range(0, fresh.axes()).filter(axis -> !fresh.shares(axis, space)).toArray();
    return new Relayout(
        new RuleIndex(names, all, found, fresh.regions(found), fresh), points, axes);
  }

  /**
   * Lays the rules out anew on the axes whose classes of hosts, times or device states change. This
   * index must not be used afterwards.
   *
   * @param rulebase in which the names of these rules have the same meaning
   * @return null if it has other coordinates, or the names differ
   */
  public Relayout in(Rulebase rulebase) {
    if (!coordinates(rulebase.vocabularies()).equals(coordinates(resolution.vocabularies()))) {
      return null;
    }
    Resolution names = new Resolution(rulebase, resolution);
    List<ResolvedMatch> found = matches(names, inOrder(rules));
    return relayout(names, found, new Space(names, found, space));
  }

  private static List<Coordinate> coordinates(List<Vocabulary> vocabularies) {
    return vocabularies.stream().map(Vocabulary::coordinate).toList();
  }

  /**
   * The same, but faster: the classes of removed rules remain, and no classes are added.
   *
   * @return null if there may be too many such classes
   */
  public Relayout relabelled() {
    Relabelling relabelled = space.relabelled();
    if (relabelled == null) {
      return null;
    }
    List<List<Box>> laidOut = relabelled.regions(inOrder(regions));
    RuleIndex index =
        new RuleIndex(resolution, inOrder(rules), inOrder(matches), laidOut, relabelled.to());
    return new Relayout(index, relabelled::point, relabelled.axes());
  }

  private <T> List<T> inOrder(List<T> byHandle) {
    return Arrays.stream(handleAt).mapToObj(byHandle::get).toList();
  }

  /** Takes a rule in, without a place yet. */
  private int add(Rule rule, ResolvedMatch match, List<Box> region) {
    int handle = rules.size();
    rules.add(rule);
    verdicts.add(rule.verdict());
    matches.add(match);
    regions.add(region);
    handles.put(rule.id(), handle);
    firstBox.add(boxes.size());
    if (rule.isInForce()) {
      for (Box box : region) {
        boxes.add(box);
        ruleOf.add(handle);
      }
    }
    return handle;
  }

  private void place(int[] handleAt) {
    this.handleAt = handleAt;
    positionOf = new int[rules.size()];
    Arrays.fill(positionOf, -1);
    for (int i = 0; i < handleAt.length; i++) {
      positionOf[handleAt[i]] = i;
    }
    positionOfBox = new int[boxes.size()];
    for (int box = 0; box < positionOfBox.length; box++) {
      positionOfBox[box] = positionOf[ruleOf.get(box)];
    }
  }

  public Space space() {
    return space;
  }

  public Resolution resolution() {
    return resolution;
  }

  /** How many rules there are. */
  public int size() {
    return handleAt.length;
  }

  /** One more than the highest handle that was ever given. */
  public int handles() {
    return rules.size();
  }

  public int handleAt(int position) {
    return handleAt[position];
  }

  /** The handle of a rule by its id, or {@link #NONE}. */
  public int handle(String id) {
    return handles.getOrDefault(id, NONE);
  }

  /** The same, quicker if the rule stands where it stood. */
  private int handle(Rule rule, int position) {
    boolean there = position < size() && rules.get(handleAt[position]) == rule;
    return there ? handleAt[position] : handle(rule.id());
  }

  /** The place of a rule, from 0; -1 if it is no longer there. */
  public int position(int handle) {
    return positionOf[handle];
  }

  public Rule rule(int handle) {
    return rules.get(handle);
  }

  /** A rule's criteria with every name looked up. */
  public ResolvedMatch match(int handle) {
    return matches.get(handle);
  }

  /** The feasible connections that a rule matches, as disjoint boxes. */
  public List<Box> region(int handle) {
    return regions.get(handle);
  }

  /** Whether a point, of which terms may be unknown, is in a rule's region. */
  public boolean holds(int handle, int[] point) {
    for (Box box : regions.get(handle)) {
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
    return handle == NONE ? null : rules.get(handle);
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
    return box < 0 ? NONE : ruleOf.get(box);
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
      all[i] = (long) positionOfBox[box] << 32 | ruleOf.get(box);
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
    return first == handle ? firstFrom(positionOf[handle] + 1, point) : first;
  }

  /** The verdict of a rule; for {@link #NONE} that of the default rule. */
  public Verdict verdict(int handle) {
    return handle == NONE ? DefaultRule.verdict(null) : verdicts.get(handle);
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
    return boxes.get(number);
  }

  /** The handle of a box's rule. */
  int ruleOf(int number) {
    return ruleOf.get(number);
  }

  /** No box of a rule at the position or below has a number below this. */
  int firstBoxAt(int position) {
    return asBuilt ? boxesBefore(position) : 0;
  }

  /** No box of a rule above the position has this number or a higher one. */
  int endOfBoxesAbove(int position) {
    return asBuilt ? boxesBefore(position) : boxes.size();
  }

  private int boxesBefore(int position) {
    return position < size() ? firstBox.get(handleAt[position]) : boxes.size();
  }

  /**
   * What an update did.
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
   * Takes over the next state of the rules. A rule that now matches or decides otherwise, or that
   * was moved, counts as gone and as fresh.
   *
   * @return null if there is no room for it: then the order has to be laid out anew, see {@link
   *     #relabelled} and {@link #relayout}
   */
  public Change update(Next next) {
    int prefix = 0;
    int count = next.rules.size();
    int most = Math.min(count, size());
    while (prefix < most && isSame(prefix, next.rules.get(prefix), next)) {
      prefix++;
    }
    int suffix = 0;
    while (suffix < most - prefix
        && isSame(size() - 1 - suffix, next.rules.get(count - 1 - suffix), next)) {
      suffix++;
    }
    Map<Integer, Integer> gone = new HashMap<>();
    List<Integer> fresh = new ArrayList<>();
    List<Integer> reworded = new ArrayList<>();
    int[] places = new int[count];
    System.arraycopy(handleAt, 0, places, 0, prefix);
    System.arraycopy(handleAt, size() - suffix, places, count - suffix, suffix);
    Set<Integer> kept = new HashSet<>();
    int end = count - suffix;
    List<ResolvedMatch> newMatches = new ArrayList<>();
    List<List<Box>> newRegions = new ArrayList<>();
    for (int i = prefix; i < end; i++) {
      Rule rule = next.rules.get(i);
      int handle = handle(rule, i);
      boolean there =
          handle != NONE && !next.moved.contains(rule.id()) && decidesLike(rules.get(handle), rule);
      boolean asSaid = there && !next.isOther(rule) && rules.get(handle).matchesLike(rule);
      ResolvedMatch match = asSaid ? null : next.names.match(rule);
      boolean same = asSaid || there && match.equals(matches.get(handle));
      if (same) {
        kept.add(handle);
      }
      List<Box> region = same ? null : space.region(match);
      if (!same && region == null) {
        return null;
      }
      newMatches.add(match);
      newRegions.add(region);
    }
    if (rules.size() + newRegions.size() - kept.size() > MOST_UNUSED * (count + 100)) {
      return null;
    }
    resolution = next.names;
    space.takeOver(resolution);
    asBuilt = false;
    for (int i = prefix; i < size() - suffix; i++) {
      if (!kept.contains(handleAt[i])) {
        gone.put(handleAt[i], i);
        remove(handleAt[i]);
      }
    }
    int firstNewBox = boxes.size();
    for (int i = prefix; i < end; i++) {
      Rule rule = next.rules.get(i);
      List<Box> region = newRegions.get(i - prefix);
      if (region == null) {
        places[i] = handle(rule, i);
        if (rules.set(places[i], rule) != rule) {
          reworded.add(places[i]);
        }
      } else {
        places[i] = add(rule, newMatches.get(i - prefix), region);
        fresh.add(places[i]);
      }
    }
    place(places);
    for (int box = firstNewBox; box < boxes.size(); box++) {
      firstMatch.add(box);
      overlapping.add(box, boxes.get(box));
    }
    return new Change(gone, fresh, reworded);
  }

  /** The same for rules whose names keep their meaning. */
  public Change update(List<Rule> rules, Set<String> moved) {
    return update(next(rules, moved));
  }

  private void remove(int handle) {
    Rule rule = rules.get(handle);
    handles.remove(rule.id(), handle);
    if (rule.isInForce()) {
      for (int i = 0; i < regions.get(handle).size(); i++) {
        int box = firstBox.get(handle) + i;
        overlapping.remove(box);
        firstMatch.remove(box);
      }
    }
  }

  /** Whether a rule stands at a place, and means what it meant. */
  private boolean isSame(int position, Rule rule, Next next) {
    return rules.get(handleAt[position]) == rule && !next.isOther(rule);
  }

  private static boolean decidesLike(Rule was, Rule is) {
    return was.isInForce() == is.isInForce() && was.verdict() == is.verdict();
  }
}
