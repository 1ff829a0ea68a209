package dev.ironsieve.core.difference;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.difference.Difference.Extent;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.LongestIncreasingSubsequence;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Resolution;
import dev.ironsieve.core.space.ResolvedMatch;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Computes a difference. If unchanged rules decide a connection before and after, it is the same
 * rule: of two, the upper one would decide on both sides. So every disagreement is decided, before
 * or after, by a changed rule: edited, removed, added, or moved against the others. The region of
 * each such rule is partitioned into boxes on which both sides are constant.
 */
public final class Differences {
  /** Comparisons of boxes before it gives up; some seconds of work. */
  public static final long STEPS = 100_000_000;

  /** Boxes to try for the region of one rule, before its parts are described by answers. */
  private static final int MOST_REGIONS = 24;

  /** Points that a share is estimated from. */
  static final int SAMPLES = 64;

  private final RuleIndex before;
  private final RuleIndex after;
  private final Space space;
  private final Aspect aspect;
  private final int regions;
  private final long steps;

  private Differences(RuleIndex before, RuleIndex after, Aspect aspect, long steps, int regions) {
    this.before = before;
    this.after = after;
    this.space = after.space();
    this.aspect = aspect;
    this.regions = regions;
    this.steps = steps;
  }

  /** The difference of two rulebases with the same zones, objects and vocabularies. */
  public static Difference between(Rulebase before, Rulebase after, Aspect aspect) {
    return between(before, after, aspect, STEPS);
  }

  /**
   * The same with a budget.
   *
   * @param steps how many comparisons of boxes it may take
   * @throws IllegalArgumentException if the zones, the values of the vocabularies, or, if rules use
   *     time, the time zones differ, since then the sets of connections differ
   */
  public static Difference between(Rulebase before, Rulebase after, Aspect aspect, long steps) {
    if (!values(before).equals(values(after))) {
      // Both sides get the classes of hosts and times of both.
      Rulebase old = before.tellingApart(after);
      Rulebase now = after.tellingApart(before);
      if (!values(old).equals(values(before)) || !values(now).equals(values(after))) {
        return between(old, now, aspect, steps);
      }
    }
    if (!before.zones().equals(after.zones()) || !values(before).equals(values(after))) {
      throw new IllegalArgumentException(
          "not the same zones, values of vocabularies and time zone");
    }
    Resolution old = new Resolution(before);
    Resolution now = new Resolution(after, old);
    List<ResolvedMatch> others = after.rules().stream().map(now::match).toList();
    Space space = RuleIndex.space(old, before.rules(), others);
    RuleIndex oldOrder = new RuleIndex(old, before.rules(), space);
    RuleIndex newOrder = new RuleIndex(now, after.rules(), space);
    return between(oldOrder, newOrder, aspect, steps);
  }

  /**
   * The difference between rules that are laid out already and others, which is quicker than laying
   * out both.
   *
   * @param before may be updated later, which does not change the difference
   * @param rulebase that {@code before} is of
   * @param after with the same zones, objects and vocabularies
   */
  public static Difference between(
      RuleIndex before, Rulebase rulebase, Rulebase after, Aspect aspect, long steps) {
    Optional<RuleIndex> other =
        after.namesMeanAsIn(rulebase) ? before.with(after.rules()) : Optional.empty();
    return other
        .map(index -> between(before.snapshot(), index, aspect, steps))
        .orElseGet(() -> between(rulebase, after, aspect, steps));
  }

  /**
   * The difference of two orders that are laid into one space; what they were laid out for before
   * is not done again.
   *
   * @throws IllegalArgumentException if they are not in one space
   */
  public static Difference between(RuleIndex before, RuleIndex after, Aspect aspect, long steps) {
    if (before.space() != after.space()) {
      throw new IllegalArgumentException("not in one space");
    }
    return between(before, after, aspect, steps, MOST_REGIONS);
  }

  static Difference between(
      RuleIndex before, RuleIndex after, Aspect aspect, long steps, int regions) {
    return new Differences(before, after, aspect, steps, regions).run();
  }

  private static List<Object> values(Rulebase rulebase) {
    return rulebase.vocabularies().stream()
        .map(
            vocabulary ->
                (Object)
                    List.of(
                        vocabulary.coordinate(),
                        vocabulary.values(),
                        vocabulary.coordinate() == Coordinate.TIME
                            ? rulebase.gatewaySettings().timeZone()
                            : ""))
        .toList();
  }

  private Difference run() {
    Set<Integer> unlikeBefore = new HashSet<>();
    Set<Integer> unlikeAfter = new HashSet<>();
    unlike(unlikeBefore, unlikeAfter);
    List<Target> targets = new ArrayList<>();
    for (int handle : unlikeBefore) {
      before.region(handle).forEach(box -> targets.add(new Target(handle, box, false)));
    }
    for (int handle : unlikeAfter) {
      after.region(handle).forEach(box -> targets.add(new Target(handle, box, true)));
    }
    List<Found> found = found(targets, unlikeBefore);
    boolean complete = found.stream().allMatch(Found::complete);
    List<Difference.ChangedBox> parts =
        joined(found.stream().flatMap(f -> f.pieces.stream()).toList()).stream()
            .flatMap(this::told)
            .sorted(Comparator.comparingDouble(Difference.ChangedBox::share).reversed())
            .toList();
    Set<Rule> changed = unlikeBefore.stream().map(before::rule).collect(Collectors.toSet());
    return new Difference(before, after, aspect, changed, parts, complete);
  }

  /**
   * A box of a rule that does not stand the same on both sides.
   *
   * @param back whether it is one of the rules after
   */
  private record Target(int handle, Box box, boolean back) {}

  /**
   * @param left steps that were left
   */
  private record Found(List<DifferenceBox> pieces, boolean complete, long left) {}

  /**
   * What is found of each target. At first each has the same share of half of the steps, all cores
   * at work; the few that this is too little for have what is left, one after the other.
   */
  private List<Found> found(List<Target> targets, Set<Integer> unlikeBefore) {
    long share = targets.isEmpty() ? 0 : steps / 2 / targets.size();
    List<Found> out =
        new ArrayList<>(
            targets.parallelStream().map(target -> found(target, unlikeBefore, share)).toList());
    long left = steps;
    for (Found first : out) {
      left -= share - first.left;
    }
    for (int i = 0; i < out.size(); i++) {
      if (!out.get(i).complete) {
        out.set(i, found(targets.get(i), unlikeBefore, left));
        left = out.get(i).left;
      }
    }
    return out;
  }

  private Found found(Target target, Set<Integer> unlikeBefore, long most) {
    Budget budget = new Budget(most);
    List<DifferenceBox> pieces = new ArrayList<>();
    boolean complete;
    if (target.back) {
      ChangedRegion.Sides sides = new ChangedRegion.Sides(after, before, aspect, regions);
      complete =
          new ChangedRegion(target.handle, target.box, sides, unlikeBefore).find(budget, pieces);
      pieces.replaceAll(DifferenceBox::turned);
    } else {
      ChangedRegion.Sides sides = new ChangedRegion.Sides(before, after, aspect, regions);
      complete = new ChangedRegion(target.handle, target.box, sides, Set.of()).find(budget, pieces);
    }
    return new Found(pieces, complete, budget.left());
  }

  /** The handles of enabled rules that do not stand the same in both. */
  private void unlike(Set<Integer> unlikeBefore, Set<Integer> unlikeAfter) {
    // Of rules that are alike: their handles before and positions after, in the order before.
    List<Integer> same = new ArrayList<>();
    List<Integer> positions = new ArrayList<>();
    for (int i = 0; i < before.size(); i++) {
      int handle = before.handleAt(i);
      int now = after.handle(before.rule(handle).id());
      if (now != RuleIndex.NONE && alike(handle, now)) {
        same.add(handle);
        positions.add(after.position(now));
      } else {
        unlikeBefore.add(handle);
      }
    }
    BitSet rising =
        LongestIncreasingSubsequence.longest(
            positions.stream().mapToInt(Integer::intValue).toArray());
    BitSet kept = new BitSet(after.size());
    for (int i = 0; i < positions.size(); i++) {
      if (rising.get(i)) {
        kept.set(positions.get(i));
      } else {
        unlikeBefore.add(same.get(i));
      }
    }
    for (int i = 0; i < after.size(); i++) {
      if (!kept.get(i)) {
        unlikeAfter.add(after.handleAt(i));
      }
    }
    unlikeBefore.removeIf(handle -> !before.rule(handle).isInForce());
    unlikeAfter.removeIf(handle -> !after.rule(handle).isInForce());
  }

  private boolean alike(int handle, int now) {
    Rule was = before.rule(handle);
    Rule is = after.rule(now);
    return was.isInForce() == is.isInForce()
        && aspect.of(was).equals(aspect.of(is))
        && (was == is && before.resolution() == after.resolution()
            || before.region(handle).equals(after.region(now)));
  }

  /** The share of the whole space that a box is. */
  private double share(Box box) {
    double share = 1;
    for (int axis = 0; axis < box.axes(); axis++) {
      share *= (double) space.count(axis, box.side(axis)) / space.classes(axis);
    }
    return share;
  }

  /** Joins whole boxes that say the same and differ on one axis only, until nothing joins. */
  private List<DifferenceBox> joined(List<DifferenceBox> found) {
    List<DifferenceBox> pieces = new ArrayList<>(found);
    boolean again = !pieces.isEmpty();
    while (again) {
      again = false;
      for (int axis = 0; axis < space.axes(); axis++) {
        Map<Object, DifferenceBox> byRest = new LinkedHashMap<>();
        for (DifferenceBox piece : pieces) {
          Object rest = piece.extent() == Extent.WHOLE ? rest(piece, axis) : piece;
          DifferenceBox other = byRest.get(rest);
          if (other != null) {
            again = true;
            IntSet both = other.box().side(axis).union(piece.box().side(axis));
            piece = other.within(other.box().with(axis, both));
          }
          byRest.put(rest, piece);
        }
        pieces = new ArrayList<>(byRest.values());
      }
    }
    return pieces;
  }

  /** All of a piece but its side on one axis. */
  private List<Object> rest(DifferenceBox piece, int axis) {
    List<Object> out = new ArrayList<>(space.axes() + 2);
    out.add(piece.was());
    out.add(piece.is());
    for (int i = 0; i < space.axes(); i++) {
      out.add(i == axis ? "" : piece.box().side(i));
    }
    return out;
  }

  private Stream<Difference.ChangedBox> told(DifferenceBox piece) {
    return space.feasible(piece.box()).stream().map(box -> told(piece, box));
  }

  private Difference.ChangedBox told(DifferenceBox piece, Box box) {
    boolean lowest = piece.extent() == Extent.WHOLE && !box.contains(piece.point());
    int[] point = lowest ? box.lowest() : piece.point();
    return new Difference.ChangedBox(
        box,
        piece.extent(),
        share(box) * piece.share(),
        before.ruleAt(point),
        after.ruleAt(point),
        space.connection(point));
  }
}
