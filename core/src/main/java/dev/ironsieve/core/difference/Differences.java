package dev.ironsieve.core.difference;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.difference.Difference.Extent;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.order.Rising;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Match;
import dev.ironsieve.core.space.Resolution;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Works out a difference. Where two rules that stand the same in both rulebases decide before and
 * after, it is the same rule: were it two, the one that stands higher would decide on both sides.
 * So whatever is decided otherwise is decided, before or after, by a rule that does not stand the
 * same: changed, gone, new, or moved against the rest. The region of each such rule is paved with
 * boxes that hold what it decides and what the other side says otherwise.
 */
public final class Differences {
  /** Comparisons of boxes before it gives up; some seconds of work. */
  public static final long STEPS = 100_000_000;

  /** Boxes that what one rule decides is taken apart into before it is told at once. */
  private static final int TILES = 24;

  /** Points that a share is estimated from. */
  static final int SAMPLES = 64;

  private final Order before;
  private final Order after;
  private final Space space;
  private final Aspect aspect;
  private final int tiles;
  private final long steps;

  private Differences(Order before, Order after, Aspect aspect, long steps, int tiles) {
    this.before = before;
    this.after = after;
    this.space = after.space();
    this.aspect = aspect;
    this.tiles = tiles;
    this.steps = steps;
  }

  /** The difference of two rulebases that speak of the same zones, objects and vocabularies. */
  public static Difference between(Rulebase before, Rulebase after, Aspect aspect) {
    return between(before, after, aspect, STEPS);
  }

  /**
   * @param steps how many comparisons of boxes it may take
   * @throws IllegalArgumentException if the zones, the values of the vocabularies, or, where rules
   *     speak of time, the time zones are not the same, since then the connections are not
   */
  public static Difference between(Rulebase before, Rulebase after, Aspect aspect, long steps) {
    if (!values(before).equals(values(after))) {
      // Hosts and times are told apart as the rules say them: here, as those of both do.
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
    List<Match> others = after.rules().stream().map(now::match).toList();
    Space space = Order.space(old, before.rules(), others);
    Order oldOrder = new Order(old, before.rules(), space);
    Order newOrder = new Order(now, after.rules(), space);
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
      Order before, Rulebase rulebase, Rulebase after, Aspect aspect, long steps) {
    Order other = after.namesMeanAsIn(rulebase) ? before.with(after.rules()) : null;
    return other == null
        ? between(rulebase, after, aspect, steps)
        : between(before.snapshot(), other, aspect, steps);
  }

  /**
   * The difference of two orders that are laid into one space; what they were laid out for before
   * is not done again.
   *
   * @throws IllegalArgumentException if they are not in one space
   */
  public static Difference between(Order before, Order after, Aspect aspect, long steps) {
    if (before.space() != after.space()) {
      throw new IllegalArgumentException("not in one space");
    }
    return between(before, after, aspect, steps, TILES);
  }

  static Difference between(Order before, Order after, Aspect aspect, long steps, int tiles) {
    return new Differences(before, after, aspect, steps, tiles).run();
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
                            ? rulebase.handling().timeZone()
                            : ""))
        .toList();
  }

  private Difference run() {
    Set<Integer> unlikeBefore = new HashSet<>();
    Set<Integer> unlikeAfter = new HashSet<>();
    unlike(unlikeBefore, unlikeAfter);
    List<Target> targets = new ArrayList<>();
    for (int slot : unlikeBefore) {
      before.region(slot).forEach(box -> targets.add(new Target(slot, box, false)));
    }
    for (int slot : unlikeAfter) {
      after.region(slot).forEach(box -> targets.add(new Target(slot, box, true)));
    }
    List<Found> found = found(targets, unlikeBefore);
    boolean complete = found.stream().allMatch(Found::complete);
    List<Difference.Part> parts =
        joined(found.stream().flatMap(f -> f.pieces.stream()).toList()).stream()
            .flatMap(this::told)
            .sorted(Comparator.comparingDouble(Difference.Part::share).reversed())
            .toList();
    Set<Rule> changed = unlikeBefore.stream().map(before::rule).collect(Collectors.toSet());
    return new Difference(before, after, aspect, changed, parts, complete);
  }

  /**
   * A box of a rule that does not stand the same on both sides.
   *
   * @param back whether it is one of the rules after
   */
  private record Target(int slot, Box box, boolean back) {}

  /**
   * @param left steps that were left
   */
  private record Found(List<Piece> pieces, boolean complete, long left) {}

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
    List<Piece> pieces = new ArrayList<>();
    boolean complete;
    if (target.back) {
      Owned.Sides sides = new Owned.Sides(after, before, aspect, tiles);
      complete = new Owned(target.slot, target.box, sides, unlikeBefore).find(budget, pieces);
      pieces.replaceAll(Piece::turned);
    } else {
      Owned.Sides sides = new Owned.Sides(before, after, aspect, tiles);
      complete = new Owned(target.slot, target.box, sides, Set.of()).find(budget, pieces);
    }
    return new Found(pieces, complete, budget.left());
  }

  /** The slots of enabled rules that do not stand the same in both. */
  private void unlike(Set<Integer> unlikeBefore, Set<Integer> unlikeAfter) {
    // Of rules that are alike: their slots before and positions after, in the order before.
    List<Integer> same = new ArrayList<>();
    List<Integer> positions = new ArrayList<>();
    for (int i = 0; i < before.size(); i++) {
      int slot = before.slotAt(i);
      int now = after.slot(before.rule(slot).id());
      if (now != Order.NONE && alike(slot, now)) {
        same.add(slot);
        positions.add(after.position(now));
      } else {
        unlikeBefore.add(slot);
      }
    }
    BitSet rising = Rising.longest(positions.stream().mapToInt(Integer::intValue).toArray());
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
        unlikeAfter.add(after.slotAt(i));
      }
    }
    unlikeBefore.removeIf(slot -> !before.rule(slot).isInForce());
    unlikeAfter.removeIf(slot -> !after.rule(slot).isInForce());
  }

  private boolean alike(int slot, int now) {
    Rule was = before.rule(slot);
    Rule is = after.rule(now);
    return was.isInForce() == is.isInForce()
        && aspect.of(was).equals(aspect.of(is))
        && (was == is && before.resolution() == after.resolution()
            || before.region(slot).equals(after.region(now)));
  }

  /** How much of everything a box is. */
  private double share(Box box) {
    double share = 1;
    for (int axis = 0; axis < box.axes(); axis++) {
      share *= (double) space.count(axis, box.side(axis)) / space.classes(axis);
    }
    return share;
  }

  /** Joins whole boxes that say the same and differ on one axis only, until nothing joins. */
  private List<Piece> joined(List<Piece> found) {
    List<Piece> pieces = new ArrayList<>(found);
    boolean again = !pieces.isEmpty();
    while (again) {
      again = false;
      for (int axis = 0; axis < space.axes(); axis++) {
        Map<Object, Piece> byRest = new LinkedHashMap<>();
        for (Piece piece : pieces) {
          Object rest = piece.extent() == Extent.WHOLE ? rest(piece, axis) : piece;
          Piece other = byRest.get(rest);
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
  private List<Object> rest(Piece piece, int axis) {
    List<Object> out = new ArrayList<>(space.axes() + 2);
    out.add(piece.was());
    out.add(piece.is());
    for (int i = 0; i < space.axes(); i++) {
      out.add(i == axis ? "" : piece.box().side(i));
    }
    return out;
  }

  private Stream<Difference.Part> told(Piece piece) {
    return space.feasible(piece.box()).stream().map(box -> told(piece, box));
  }

  private Difference.Part told(Piece piece, Box box) {
    boolean lowest = piece.extent() == Extent.WHOLE && !box.contains(piece.point());
    int[] point = lowest ? box.lowest() : piece.point();
    return new Difference.Part(
        box,
        piece.extent(),
        share(box) * piece.share(),
        before.ruleAt(point),
        after.ruleAt(point),
        space.connection(point));
  }
}
