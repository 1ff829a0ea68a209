package dev.ironsieve.core.difference;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.cover.Paving;
import dev.ironsieve.core.cover.Paving.Laid;
import dev.ironsieve.core.cover.Paving.Tile;
import dev.ironsieve.core.difference.Difference.Extent;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.stream.Stream;

/**
 * One box of a rule that does not stand the same on both sides: what it decides on its side and the
 * other side says otherwise. A few boxes if these make it up, else all of it at once for each thing
 * that the other side says.
 */
final class Owned implements Paving.Mason {
  /** Boxes that meet a target for which tiles are tried at all. */
  private static final int MOST_TO_PAVE = 300;

  /**
   * The sides of the comparison, and what is compared.
   *
   * @param tiles that are tried before it is told at once
   */
  record Sides(Order mine, Order other, Aspect aspect, int tiles) {}

  private final int slot;
  private final Box target;
  private final Order mine;
  private final Order other;
  private final Aspect aspect;
  private final int tiles;
  private final Set<Integer> elsewhere;
  private final Object mineSays;
  private final List<Box> known = new ArrayList<>(); // of mine, then of the other side
  private final List<Integer> slotOf = new ArrayList<>(); // of the rule of a known box
  private final int firstOther;

  /**
   * @param slot the rule, on its side
   * @param target one of its boxes
   * @param elsewhere slots of the other side: what these decide belongs to them
   */
  Owned(int slot, Box target, Sides sides, Set<Integer> elsewhere) {
    this.slot = slot;
    this.target = target;
    this.mine = sides.mine;
    this.other = sides.other;
    this.aspect = sides.aspect;
    this.tiles = sides.tiles;
    this.elsewhere = elsewhere;
    mineSays = aspect.of(mine.rule(slot));
    know(mine, mine.meeting(List.of(target), 0, mine.position(slot)));
    firstOther = known.size();
    know(other, other.meeting(List.of(target), 0, other.size()));
  }

  /** The boxes of some rules that meet the target, down to the first that holds all of it. */
  private void know(Order order, int[] slots) {
    for (int meeting : slots) {
      for (Box box : order.region(meeting)) {
        if (box.intersects(target)) {
          known.add(box);
          slotOf.add(meeting);
          if (box.containsAll(target)) {
            return;
          }
        }
      }
    }
  }

  /**
   * @param out takes the pieces, which are disjoint
   * @return false if the budget ran out, and there may be more
   */
  boolean find(Budget budget, List<Piece> out) {
    int[] done = new int[firstOther];
    Arrays.setAll(done, i -> i);
    int[][] points = some();
    Optional<List<Laid>> laid =
        known.size() > MOST_TO_PAVE
            ? Optional.empty()
            : Paving.pave(target, known, done, this, points, tiles, budget);
    if (laid.isEmpty()) {
      return byWhatIsSaid(points, budget, out);
    }
    for (Laid tile : laid.get()) {
      Object says = says(other.first(tile.point()));
      out.add(new Piece(tile.box(), Extent.WHOLE, mineSays, says, tile.point(), 1));
    }
    return true;
  }

  /** Of some points of the target, picked evenly, those that the rule decides. */
  private int[][] some() {
    SplittableRandom random = new SplittableRandom(slot);
    return Stream.generate(() -> mine.space().pick(target, random))
        .limit(Differences.SAMPLES)
        .filter(point -> mine.first(point) == slot)
        .toArray(int[][]::new);
  }

  private Object says(int slotOfOther) {
    return aspect.of(slotOfOther == Order.NONE ? null : other.rule(slotOfOther));
  }

  @Override
  public Tile at(int[] point) {
    int decides = other.first(point);
    Object says = says(decides);
    boolean unwanted = elsewhere.contains(decides) || says.equals(mineSays);
    int within = Paving.ANYWHERE;
    int[] outside = new int[known.size()];
    int count = 0;
    for (int i = firstOther; i < known.size(); i++) {
      int above = slotOf.get(i);
      if (above == decides) {
        within = known.get(i).contains(point) ? i : within;
      } else if (isAbove(above, decides) && endsAt(above, decides, says)) {
        outside[count++] = i;
      }
    }
    if (unwanted) {
      return new Tile.Unwanted(within, Arrays.copyOf(outside, count));
    }
    for (int i = 0; i < firstOther; i++) {
      outside[count++] = i;
    }
    return new Tile.Wanted(within, Arrays.copyOf(outside, count));
  }

  private boolean isAbove(int above, int decides) {
    return decides == Order.NONE || other.position(above) < other.position(decides);
  }

  /** Whether what holds of the points of one rule no longer holds of those of one above it. */
  private boolean endsAt(int above, int decides, Object says) {
    if (elsewhere.contains(decides)) {
      return !elsewhere.contains(above);
    }
    boolean same = says(above).equals(says);
    return says.equals(mineSays) ? !same : !same || elsewhere.contains(above);
  }

  /**
   * For each thing that the other side says otherwise, all of what this rule decides.
   *
   * @param points see {@link #some}
   */
  private boolean byWhatIsSaid(int[][] points, Budget budget, List<Piece> out) {
    Map<Object, List<int[]>> sampled = new HashMap<>();
    for (int[] point : points) {
      int decides = other.first(point);
      if (!elsewhere.contains(decides)) {
        Object says = says(decides);
        sampled.computeIfAbsent(says, fresh -> new ArrayList<>()).add(point);
      }
    }
    if (sampled.isEmpty()) {
      CoverSearch.Holder first =
          point -> mine.first(point) == slot ? CoverSearch.Holder.NOBODY : mine.first(point);
      switch (CoverSearch.search(List.of(target), first, mine::region, budget)) {
        case Outcome.Uncovered uncovered -> {} // something is decided, if not at these points
        case Outcome.Exhausted exhausted -> {
          return false;
        }
        case Outcome.Covered covered -> {
          return true;
        }
      }
    }
    Set<Object> otherwise = new LinkedHashSet<>();
    for (int i = firstOther; i < known.size(); i++) {
      otherwise.add(says(slotOf.get(i)));
    }
    otherwise.add(says(Order.NONE));
    otherwise.remove(mineSays);
    boolean complete = true;
    for (Object says : otherwise) {
      List<int[]> hit = sampled.getOrDefault(says, List.of());
      double hits = Math.max(hit.size(), 0.5);
      Search search = hit.isEmpty() ? search(says, budget) : new Search(true, hit.getFirst());
      complete &= search.complete;
      if (search.point != null) {
        out.add(
            new Piece(
                target,
                Extent.DECIDED_BEFORE,
                mineSays,
                says,
                search.point,
                hits / Differences.SAMPLES));
      }
    }
    return complete;
  }

  /** The point that a search found, or null; then whether there is none for certain. */
  private record Search(boolean complete, int[] point) {}

  /** Looks for a point that this rule decides, and of which the other side says this. */
  private Search search(Object says, Budget budget) {
    for (int i = firstOther; i <= known.size(); i++) {
      int decides = i == known.size() ? Order.NONE : slotOf.get(i);
      if (elsewhere.contains(decides) || !says(decides).equals(says)) {
        continue;
      }
      Box box = i == known.size() ? target : known.get(i).intersection(target).orElseThrow();
      switch (CoverSearch.search(List.of(box), above(decides), this::region, budget)) {
        case Outcome.Uncovered uncovered -> {
          return new Search(true, uncovered.point());
        }
        case Outcome.Exhausted exhausted -> {
          return new Search(false, null);
        }
        case Outcome.Covered covered -> {}
      }
    }
    return new Search(true, null);
  }

  /** A rule above this one, or one of the other side above another: their numbers are odd. */
  private CoverSearch.Holder above(int decides) {
    return point -> {
      int first = mine.first(point);
      if (first != slot) {
        return first * 2;
      }
      int there = other.first(point);
      return there == decides ? CoverSearch.Holder.NOBODY : there * 2 + 1;
    };
  }

  private List<Box> region(int number) {
    return (number % 2 == 0 ? mine : other).region(number / 2);
  }
}
