package dev.ironsieve.core.difference;

import dev.ironsieve.core.cover.BoxPartition;
import dev.ironsieve.core.cover.BoxPartition.PlacedBox;
import dev.ironsieve.core.cover.BoxPartition.Region;
import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.difference.Difference.Extent;
import dev.ironsieve.core.ruleindex.RuleIndex;
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
 * One box of a changed rule's region: the part that the rule decides on its side and on which the
 * other side disagrees. A few boxes if these suffice, else one part for each answer of the other
 * side.
 */
final class ChangedRegion implements BoxPartition.RegionOracle {
  /** Boxes that meet a target for which regions are tried at all. */
  private static final int MOST_TO_PAVE = 300;

  /**
   * The two sides and the aspect that is compared.
   *
   * @param regions boxes to try before the parts are described by the answer of the other side
   */
  record Sides(RuleIndex mine, RuleIndex other, Aspect aspect, int regions) {}

  private final int handle;
  private final Box target;
  private final RuleIndex mine;
  private final RuleIndex other;
  private final Aspect aspect;
  private final int regions;
  private final Set<Integer> elsewhere;
  private final Object mineSays;
  private final List<Box> known = new ArrayList<>(); // of mine, then of the other side
  private final List<Integer> handleOf = new ArrayList<>(); // of the rule of a known box
  private final int firstOther;

  /**
   * @param handle the rule, on its side
   * @param target one of its boxes
   * @param elsewhere handles of the other side: what these decide belongs to them
   */
  ChangedRegion(int handle, Box target, Sides sides, Set<Integer> elsewhere) {
    this.handle = handle;
    this.target = target;
    this.mine = sides.mine;
    this.other = sides.other;
    this.aspect = sides.aspect;
    this.regions = sides.regions;
    this.elsewhere = elsewhere;
    mineSays = aspect.of(mine.rule(handle));
    know(mine, mine.overlapping(List.of(target), 0, mine.position(handle)));
    firstOther = known.size();
    know(other, other.overlapping(List.of(target), 0, other.size()));
  }

  /** The boxes of some rules that meet the target, down to the first that holds all of it. */
  private void know(RuleIndex index, int[] handles) {
    for (int overlapping : handles) {
      for (Box box : index.region(overlapping)) {
        if (box.intersects(target)) {
          known.add(box);
          handleOf.add(overlapping);
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
  boolean find(Budget budget, List<DifferenceBox> out) {
    int[] done = new int[firstOther];
    Arrays.setAll(done, i -> i);
    int[][] points = some();
    Optional<List<PlacedBox>> placed =
        known.size() > MOST_TO_PAVE
            ? Optional.empty()
            : BoxPartition.partition(target, known, done, this, points, regions, budget);
    if (placed.isEmpty()) {
      return byWhatIsSaid(points, budget, out);
    }
    for (PlacedBox region : placed.get()) {
      Object says = says(other.first(region.point()));
      out.add(new DifferenceBox(region.box(), Extent.WHOLE, mineSays, says, region.point(), 1));
    }
    return true;
  }

  /** Of some points of the target, picked evenly, those that the rule decides. */
  private int[][] some() {
    SplittableRandom random = new SplittableRandom(handle);
    return Stream.generate(() -> mine.space().pick(target, random))
        .limit(Differences.SAMPLES)
        .filter(point -> mine.first(point) == handle)
        .toArray(int[][]::new);
  }

  private Object says(int handleOfOther) {
    return aspect.of(handleOfOther == RuleIndex.NONE ? null : other.rule(handleOfOther));
  }

  @Override
  public Region at(int[] point) {
    int decides = other.first(point);
    Object says = says(decides);
    boolean unwanted = elsewhere.contains(decides) || says.equals(mineSays);
    int within = BoxPartition.ANYWHERE;
    int[] outside = new int[known.size()];
    int count = 0;
    for (int i = firstOther; i < known.size(); i++) {
      int above = handleOf.get(i);
      if (above == decides) {
        within = known.get(i).contains(point) ? i : within;
      } else if (isAbove(above, decides) && endsAt(above, decides, says)) {
        outside[count++] = i;
      }
    }
    if (unwanted) {
      return new Region.Unwanted(within, Arrays.copyOf(outside, count));
    }
    for (int i = 0; i < firstOther; i++) {
      outside[count++] = i;
    }
    return new Region.Wanted(within, Arrays.copyOf(outside, count));
  }

  private boolean isAbove(int above, int decides) {
    return decides == RuleIndex.NONE || other.position(above) < other.position(decides);
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
   * One part for each other answer of the other side, within all that this rule decides.
   *
   * @param points see {@link #some}
   */
  private boolean byWhatIsSaid(int[][] points, Budget budget, List<DifferenceBox> out) {
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
          point -> mine.first(point) == handle ? CoverSearch.Holder.NOBODY : mine.first(point);
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
      otherwise.add(says(handleOf.get(i)));
    }
    otherwise.add(says(RuleIndex.NONE));
    otherwise.remove(mineSays);
    boolean complete = true;
    for (Object says : otherwise) {
      List<int[]> hit = sampled.getOrDefault(says, List.of());
      double hits = Math.max(hit.size(), 0.5);
      Search search = hit.isEmpty() ? search(says, budget) : new Search(true, hit.getFirst());
      complete &= search.complete;
      if (search.point != null) {
        out.add(
            new DifferenceBox(
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
      int decides = i == known.size() ? RuleIndex.NONE : handleOf.get(i);
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
      if (first != handle) {
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
