package dev.ironsieve.core.cover;

import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * Partitions a target box into few, large boxes in each of which the answer is constant. At a point
 * that no box holds yet, an oracle describes the region around it with the same answer, and a large
 * box around the point, found greedily, is placed there.
 */
public final class BoxPartition {
  /** A set of points with the same answer: inside one box, outside some others. */
  public sealed interface Region {
    /** The number of the known box that it has to stay in, or {@link #ANYWHERE}. */
    int within();

    /** Numbers of known boxes that it must not meet; none of them holds the point. */
    int[] outside();

    /** One that is wanted. It meets no other that is wanted. */
    record Wanted(int within, int[] outside) implements Region {}

    /** A region that is not wanted. */
    record Unwanted(int within, int[] outside) implements Region {}
  }

  /** Describes the region around a point in which the answer is constant. */
  public interface RegionOracle {
    Region at(int[] point);
  }

  /** A wanted box and the point that it was laid around. */
  public record PlacedBox(Box box, int[] point) {}

  /** Stands for the whole target, in {@link Region#within}. */
  public static final int ANYWHERE = -1;

  /** After this part of the regions it is seen whether the rest can be enough. */
  private static final int TRIED = 3;

  /** Fewer points tell nothing of the whole. */
  private static final int FEW_POINTS = 8;

  private final Packing packing;
  private final RegionOracle oracle;
  private final int[][] points;
  private final int most;
  private final Budget budget;
  private final List<long[]> regions = new ArrayList<>();
  private final List<PlacedBox> placed = new ArrayList<>();
  private final List<long[]> wanted = new ArrayList<>();

  private BoxPartition(
      Packing packing, RegionOracle oracle, int[][] points, int most, Budget budget) {
    this.packing = packing;
    this.oracle = oracle;
    this.points = points;
    this.most = most;
    this.budget = budget;
  }

  /**
   * All wanted boxes of a target, disjoint.
   *
   * @param known boxes that the oracle refers to by number; each meets the target
   * @param done numbers of known boxes that need no partition
   * @param points an even sample of the part to be partitioned: if the first third of the regions
   *     holds less than a third of them, the search gives up
   * @param most how many regions may be placed, wanted or not
   * @return empty if it takes more regions than that, or hardly fewer, or the budget ran out
   */
  public static Optional<List<PlacedBox>> partition(
      Box target,
      List<Box> known,
      int[] done,
      RegionOracle oracle,
      int[][] points,
      int most,
      Budget budget) {
    BoxPartition partition =
        new BoxPartition(new Packing(target, known), oracle, points, most, budget);
    Prover prover = new Prover(partition.packing, partition::lay, budget);
    return prover.prove(done) == null ? Optional.empty() : Optional.of(partition.placed);
  }

  private int lay(long[] left) {
    if (regions.size() == most || regions.size() == most / TRIED && isHopeless()) {
      return Prover.NOTHING;
    }
    int[] point = packing.somePoint(left);
    long[] cell = packing.someCell(left);
    Region region = oracle.at(point);
    long[] box = packing.target.clone();
    if (region.within() != ANYWHERE) {
      long[] within = packing.box(region.within());
      for (int word = 0; word < box.length; word++) {
        box[word] &= within[word];
      }
    }
    switch (region) {
      case Region.Unwanted unwanted -> keepOutside(box, cell, boxes(unwanted.outside));
      case Region.Wanted wants -> {
        List<long[]> outside = boxes(wants.outside);
        outside.addAll(wanted);
        keepOutside(box, cell, outside);
        wanted.add(box);
        placed.add(new PlacedBox(packing.unpack(box), point));
      }
    }
    regions.add(box);
    return packing.add(box);
  }

  /**
   * Whether the regions hold a smaller share of the points than they are of all that may be laid.
   */
  private boolean isHopeless() {
    if (points.length < FEW_POINTS) {
      return false;
    }
    List<Box> boxes = regions.stream().map(packing::unpack).toList();
    long held =
        Arrays.stream(points)
            .filter(point -> boxes.stream().anyMatch(box -> box.contains(point)))
            .count();
    return held * most < (long) regions.size() * points.length;
  }

  private List<long[]> boxes(int[] numbers) {
    List<long[]> out = new ArrayList<>(numbers.length + wanted.size());
    for (int number : numbers) {
      out.add(packing.box(number));
    }
    return out;
  }

  /**
   * Cuts {@code box} so that it meets none of {@code others}, which do not hold the cell. First
   * those that can be kept out on one axis only, then the rest, each on the axis where the most is
   * left; most of them are kept out by then.
   */
  private void keepOutside(long[] box, long[] cell, List<long[]> others) {
    budget.take(2L * others.size());
    for (int round = 0; round < 2; round++) {
      for (long[] other : others) {
        int axis = axisToCut(box, cell, other, round == 0);
        if (axis >= 0) {
          packing.remove(box, other, axis);
        }
      }
    }
  }

  /** -1 if the boxes do not meet, or, where {@code forced}, if there is more than one choice. */
  private int axisToCut(long[] box, long[] cell, long[] other, boolean forced) {
    int best = -1;
    double most = 0;
    for (int axis = 0; axis < packing.axes(); axis++) {
      long common = 0;
      boolean holdsCell = false;
      int all = 0;
      int kept = 0;
      for (int word = packing.offset[axis]; word < packing.offset[axis + 1]; word++) {
        common |= box[word] & other[word];
        holdsCell |= (cell[word] & other[word]) != 0;
        all += Long.bitCount(box[word]);
        kept += Long.bitCount(box[word] & ~other[word]);
      }
      if (common == 0) {
        return -1;
      }
      if (!holdsCell) {
        if (forced && best >= 0) {
          return -1;
        }
        double share = (double) kept / all;
        if (share > most) {
          most = share;
          best = axis;
        }
      }
    }
    return best;
  }
}
