package dev.ironsieve.core.cover;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.cover.BoxPartition.PlacedBox;
import dev.ironsieve.core.cover.BoxPartition.Region;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** Partitions by the first box that holds a point, against every point. */
class BoxPartitionTest {
  private static final int AXES = 3;
  private static final int VALUES = 5;

  /** Boxes in order; every other one is wanted, and nothing else is. */
  private record Layers(Box target, List<Box> boxes) {
    static Layers random(Random random, int count) {
      Box target = CoverSearchTest.randomBox(random, AXES, 8);
      List<Box> boxes = new ArrayList<>();
      while (boxes.size() < count) {
        Box box = CoverSearchTest.randomBox(random, AXES, 5);
        if (box.intersects(target)) {
          boxes.add(box);
        }
      }
      return new Layers(target, boxes);
    }

    int first(int[] point) {
      for (int i = 0; i < boxes.size(); i++) {
        if (boxes.get(i).contains(point)) {
          return i;
        }
      }
      return BoxPartition.ANYWHERE;
    }

    boolean isWanted(int[] point) {
      return first(point) >= 0 && first(point) % 2 == 0;
    }

    Region region(int[] point) {
      int first = first(point);
      int above = first < 0 ? boxes.size() : first;
      int[] outside = new int[above];
      int count = 0;
      for (int i = 0; i < above; i++) {
        boolean same = first >= 0 && i % 2 == first % 2;
        if (!same) {
          outside[count++] = i;
        }
      }
      int[] others = Arrays.copyOf(outside, count);
      return isWanted(point)
          ? new Region.Wanted(first, others)
          : new Region.Unwanted(first, others);
    }
  }

  private static List<int[]> points() {
    List<int[]> out = new ArrayList<>();
    for (int i = 0; i < VALUES + 1; i++) {
      for (int j = 0; j < VALUES + 1; j++) {
        for (int k = 0; k < VALUES + 1; k++) {
          out.add(new int[] {i, j, k});
        }
      }
    }
    return out;
  }

  private static Optional<List<PlacedBox>> paved(Layers layers, int most, long steps) {
    return paved(layers, new int[0], new int[0][], most, steps);
  }

  private static Optional<List<PlacedBox>> paved(
      Layers layers, int[] done, int[][] points, int most, long steps) {
    return BoxPartition.partition(
        layers.target, layers.boxes, done, layers::region, points, most, new Budget(steps));
  }

  @Test
  void laysDisjointBoxesOverExactlyWhatIsWanted() {
    int placed = 0;
    for (int seed = 0; seed < Rounds.of(1500); seed++) {
      Random random = new Random(seed);
      Layers layers = Layers.random(random, 1 + random.nextInt(12));
      List<PlacedBox> regions = paved(layers, 1000, 1_000_000).orElseThrow();
      for (int[] point : points()) {
        boolean wanted = layers.target.contains(point) && layers.isWanted(point);
        assertThat(regions.stream().filter(region -> region.box().contains(point)).count())
            .as("seed %d at %s", seed, Arrays.toString(point))
            .isEqualTo(wanted ? 1 : 0);
      }
      assertThat(regions).allMatch(region -> region.box().contains(region.point()));
      placed += regions.size();
    }
    assertThat(placed).isGreaterThan(Rounds.of(3000));
  }

  @Test
  void doneBoxesNeedNoTiles() {
    for (int seed = 0; seed < Rounds.of(200); seed++) {
      Layers layers = Layers.random(new Random(seed), 8);
      int[] done = {0};
      List<PlacedBox> regions = paved(layers, done, new int[0][], 1000, 1_000_000).orElseThrow();
      for (int[] point : points()) {
        if (layers.isWanted(point) && layers.target.contains(point) && layers.first(point) != 0) {
          assertThat(regions).as("seed %d", seed).anyMatch(region -> region.box().contains(point));
        }
      }
    }
  }

  @Test
  void givesUpRatherThanLayTooManyTilesOrWorkTooLong() {
    Layers layers = Layers.random(new Random(7), 12);
    int needed = 1;
    while (paved(layers, needed, 1_000_000).isEmpty()) {
      needed++;
    }
    assertThat(needed).isGreaterThan(1);
    assertThat(paved(layers, needed - 1, 1_000_000)).isEmpty();
    assertThat(paved(layers, needed, 1)).isEmpty();
  }

  @Test
  void givesUpEarlyWhereTheFirstTilesHoldTooFewOfThePoints() {
    int count = 12;
    List<Box> each = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      each.add(new Box(new IntSet[] {IntSet.of(i)}));
    }
    Layers layers = new Layers(new Box(new IntSet[] {IntSet.range(0, count - 1)}), each);
    int[][] even = IntStream.range(0, count).mapToObj(i -> new int[] {i}).toArray(int[][]::new);
    assertThat(paved(layers, new int[0], even, count, 1000)).isPresent();
    int paved = 0;
    for (int[] point : even) {
      int[][] same = Stream.generate(() -> point).limit(8).toArray(int[][]::new);
      paved += paved(layers, new int[0], same, count, 1000).isPresent() ? 1 : 0;
      assertThat(paved(layers, new int[0], Arrays.copyOf(same, 7), count, 1000))
          .as("too few points to tell anything")
          .isPresent();
    }
    assertThat(paved).as("those that hold the points are among the first third").isEqualTo(4);
  }

  private static Box square(int fromX, int toX, int fromY, int toY) {
    return new Box(new IntSet[] {IntSet.range(fromX, toX), IntSet.range(fromY, toY)});
  }

  /** The first region where some of the known boxes are not wanted. */
  private static Box firstTile(List<Box> known, int... outside) {
    BoxPartition.RegionOracle oracle =
        point -> {
          for (int box : outside) {
            if (known.get(box).contains(point)) {
              return new Region.Unwanted(box, new int[0]);
            }
          }
          return new Region.Wanted(BoxPartition.ANYWHERE, outside);
        };
    return BoxPartition.partition(
            square(0, 9, 0, 9), known, new int[0], oracle, new int[0][], 99, new Budget(1000))
        .orElseThrow()
        .getFirst()
        .box();
  }

  @Test
  void aTileIsCutWhereTheMostIsLeftAndFirstWhereThereIsNoChoice() {
    List<Box> known =
        List.of(
            square(3, 9, 5, 9), // may be kept out on either axis
            square(0, 9, 5, 9), // only on the second
            square(1, 1, 0, 9),
            square(2, 2, 0, 9)); // so that more classes are left on the first axis
    assertThat(firstTile(known, 0)).isEqualTo(square(0, 2, 0, 9));
    assertThat(firstTile(known, 0, 1)).isEqualTo(square(0, 9, 0, 4));
    assertThat(firstTile(known, 1, 0)).isEqualTo(square(0, 9, 0, 4));
  }

  @Test
  void aSideIsUnpackedAsItWas() {
    Box target = new Box(new IntSet[] {IntSet.range(0, 9), IntSet.range(0, 9)});
    Box known = new Box(new IntSet[] {IntSet.range(2, 3).union(IntSet.of(7)), IntSet.range(0, 9)});
    Packing packing = new Packing(target, List.of(known));
    assertThat(packing.unpack(packing.box(0))).isEqualTo(known);
    assertThat(packing.unpack(packing.target)).isEqualTo(target);
  }
}
