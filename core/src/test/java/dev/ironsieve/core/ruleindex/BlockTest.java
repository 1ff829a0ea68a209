package dev.ironsieve.core.ruleindex;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.function.IntUnaryOperator;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** Blocks and cells of boxes against comparing the boxes one by one. */
class BlockTest {
  private static final int AXES = 6;
  private static final int CODES = 224;
  private static final int LOW = 40; // of the axis of which a question brings a part only
  private static final int HIGH = 119;
  private static final int[] STEPS = {0, 0, 0, 7, 8, 8}; // codes of a class
  private static final int CROWDED = 1; // where many cuts are close together
  private static final int SPLIT = 5; // where boxes cut classes in two
  private static final int MORE = 32; // codes behind the last, for what is not known

  /** A few intervals; now and then the whole axis, as that object. */
  private static IntSet side(Random random, int axis, IntSet whole) {
    if (random.nextInt(3) == 0) {
      return whole;
    }
    IntSet out = IntSet.EMPTY;
    int step = axis == SPLIT && random.nextInt(8) == 0 ? 1 : Math.max(1, STEPS[axis]);
    if (step == 1 && random.nextInt(12) == 0) {
      return everySecond(random.nextInt(2));
    }
    for (int i = random.nextInt(3); i >= 0; i--) {
      int first =
          axis == CROWDED && random.nextBoolean()
              ? 100 + random.nextInt(10)
              : random.nextInt(CODES / step) * step;
      int last = first + (random.nextInt(70) / step + 1) * step - 1;
      out = out.union(IntSet.range(first, Math.min(CODES - 1, last)));
    }
    return out;
  }

  /** More intervals than are written down of a box, see {@link BoxRecords}. */
  private static IntSet everySecond(int from) {
    IntSet.Builder out = new IntSet.Builder();
    for (int code = from; code < CODES; code += 2) {
      out.addInOrder(code, code);
    }
    return out.build();
  }

  /** Boxes, and what is known of the axes. */
  private static final class Boxes {
    final Block.Axis[] axes = new Block.Axis[AXES];
    final List<Box> boxes = new ArrayList<>();

    Boxes(Random random, int count) {
      IntSet whole = IntSet.range(0, CODES - 1);
      Arrays.setAll(axes, i -> new Block.Axis(whole, whole, 1));
      axes[0] = new Block.Axis(whole, IntSet.range(LOW, HIGH), 1);
      IntSet more = IntSet.range(0, CODES + MORE - 1);
      for (int axis = 0; axis < AXES; axis++) {
        if (STEPS[axis] > 0) {
          axes[axis] = new Block.Axis(whole, more, STEPS[axis]);
        }
      }
      for (int i = 0; i < count; i++) {
        boxes.add(box(random));
      }
    }

    /** What is not known is only where a box asks for nothing. */
    boolean holds(int box, int[] point) {
      return IntStream.range(0, AXES)
          .allMatch(
              axis ->
                  point[axis] >= CODES
                      ? boxes.get(box).side(axis) == axes[axis].whole()
                      : boxes.get(box).side(axis).contains(point[axis]));
    }

    Box box(Random random) {
      IntSet[] sides = new IntSet[AXES];
      do {
        Arrays.setAll(sides, axis -> side(random, axis, axes[axis].whole()));
      } while (!sides[0].intersects(axes[0].range())); // others would not stand in the cell
      return new Box(sides);
    }

    int[] point(Random random) {
      int[] point = new int[AXES];
      Arrays.setAll(point, axis -> random.nextInt(axes[axis].range().max() + 1));
      point[0] = LOW + random.nextInt(HIGH - LOW + 1);
      return point;
    }

    /** The boxes, where numbers begin at {@code first}. */
    List<Box> byNumber(int first) {
      List<Box> out = new ArrayList<>(Collections.nCopies(first, boxes.getFirst()));
      out.addAll(boxes);
      return out;
    }

    BoxRecords records(List<Box> byNumber) {
      return new BoxRecords(
          Arrays.stream(axes).map(Block.Axis::whole).toArray(IntSet[]::new), byNumber);
    }

    /** A box that lies in the cell. */
    Box inside(Random random) {
      Box box = box(random);
      return box.with(0, box.side(0).intersect(axes[0].range()));
    }
  }

  @Test
  void aBlockFindsTheFirstAndAllThatMeet() {
    for (int seed = 0; seed < Rounds.of(100); seed++) {
      Random random = new Random(seed);
      int count = new int[] {1, 4, 5, 63, 64, 65, 200, Block.MOST}[seed % 8];
      Boxes all = new Boxes(random, count);
      int[] numbers = IntStream.range(0, count).map(i -> i + 1000).toArray();
      List<Box> byNumber = all.byNumber(1000);
      BoxRecords records = all.records(byNumber);
      Box[] boxes = all.boxes.toArray(Box[]::new);
      int worth = seed % 3 == 0 ? 0 : 10_000;
      Block block = new Block(numbers.clone(), boxes, records, all.axes, worth);
      boolean[] gone = new boolean[count];
      for (int round = 0; round < 3; round++) {
        for (int i = 0; i < 60; i++) {
          int[] point = all.point(random);
          int from = random.nextInt(count);
          int expected =
              IntStream.range(from, count)
                  .filter(b -> !gone[b] && all.holds(b, point))
                  .findFirst()
                  .orElse(-1);
          int found = Block.find(block.data(), point, 2 * from - 1, n -> 2 * (n - 1000), records);
          assertThat(found).as("seed %d", seed).isEqualTo(expected < 0 ? -1 : expected + 1000);
          int most = random.nextInt(count + 2);
          assertThat(block.holding(point, most, records))
              .as("seed %d", seed)
              .isEqualTo(
                  IntStream.range(0, count)
                      .filter(b -> !gone[b] && all.holds(b, point))
                      .map(b -> b + 1000)
                      .limit(most)
                      .toArray());
        }
        Box other = all.inside(random);
        int low = round == 0 ? 0 : random.nextInt(count);
        int end = round == 0 ? count : low + 1 + random.nextInt(count - low);
        int step = 1 + round; // only every so many boxes are wanted
        List<Integer> met = new ArrayList<>();
        Block.Meets meets = block.overlapping(other, byNumber, low, end, n -> n % step == 0);
        for (int n = meets.next(); n != Cell.NONE; n = meets.next()) {
          met.add(n);
        }
        assertThat(meets.next()).as("there are no more").isEqualTo(Cell.NONE);
        assertThat(met)
            .as("seed %d, %d to %d", seed, low, end)
            .isEqualTo(
                IntStream.range(low, end)
                    .filter(b -> (b + 1000) % step == 0)
                    .filter(b -> !gone[b] && all.boxes.get(b).intersects(other))
                    .mapToObj(b -> b + 1000)
                    .toList());
        int out = random.nextInt(count);
        if (!gone[out]) {
          assertThat(block.without(out + 1000)).as("nobody else has it").isSameAs(block);
          gone[out] = true;
        }
      }
    }
  }

  @Test
  void placesAreFoundByPosition() {
    Random random = new Random(1);
    for (int count : new int[] {1, 2, 64, 65, 500}) {
      Boxes all = new Boxes(random, count);
      int[] numbers = IntStream.range(0, count).toArray();
      BoxRecords records = all.records(all.boxes);
      Block block = new Block(numbers, all.boxes.toArray(Box[]::new), records, all.axes, 0);
      IntUnaryOperator twice = n -> n - n % 2; // a rule has two boxes
      for (int from = 0; from <= count + 1; from++) {
        int least = from;
        int expected = (int) IntStream.of(numbers).filter(n -> n - n % 2 < least).count();
        assertThat(block.place(from, twice)).as("%d of %d", from, count).isEqualTo(expected);
      }
      assertThat(block.place(Integer.MAX_VALUE, twice)).isEqualTo(count);
    }
  }

  @Test
  void aBlockOfSeveralOrdersIsNotChanged() {
    Random random = new Random(1);
    Boxes all = new Boxes(random, 70);
    int[] numbers = IntStream.range(0, 70).toArray();
    BoxRecords records = all.records(all.boxes);
    Block block = new Block(numbers, all.boxes.toArray(Box[]::new), records, all.axes, 0);
    block.share();
    assertThat(block.without(99)).as("it does not have this").isSameAs(block);
    Block other = block.without(69);
    for (int i = 0; i < 70; i++) {
      int[] point = inCell(all, i);
      assertThat(block.holding(point, 99, records)).contains(i);
      assertThat(Arrays.stream(other.holding(point, 99, records)).toArray())
          .isEqualTo(
              Arrays.stream(block.holding(point, 99, records)).filter(box -> box != 69).toArray());
    }
    assertThat(other.without(0)).as("it is its own").isSameAs(other);
  }

  /** A point of a box that lies in the cell. */
  private static int[] inCell(Boxes all, int box) {
    Box whole = all.boxes.get(box);
    return whole.with(0, whole.side(0).intersect(all.axes[0].range())).lowest();
  }

  @Test
  void aCellFindsTheFirstAlsoAmongThoseThatCameLate() {
    for (int seed = 0; seed < Rounds.of(60); seed++) {
      Random random = new Random(seed);
      int count = new int[] {3, 100, Block.MOST + 90}[seed % 3];
      Boxes all = new Boxes(random, count);
      int[] position = IntStream.range(0, count + 20).map(i -> 2 * i).toArray();
      int[] numbers = IntStream.range(0, count).toArray();
      BoxRecords records = all.records(all.boxes);
      Cell cell = new Cell(all.boxes, n -> position[n], numbers, records, all.axes, 100);
      List<Integer> present = new ArrayList<>(IntStream.of(numbers).boxed().toList());
      check(cell, all, position, present, random, seed);
      for (int i = 0; i < 6; i++) {
        all.boxes.add(all.box(random));
        records.add(all.boxes.getLast());
        position[count + i] = 2 * random.nextInt(count) + 1;
        cell = cell.with(count + i);
        present.add(count + i);
        check(cell, all, position, present, random, seed);
      }
      assertThat(cell.with(count + 6)).as("it is better made anew").isNull();
      for (int i = 0; i < 6; i++) {
        Integer out = present.remove(random.nextInt(present.size()));
        cell = cell.without(out);
        check(cell, all, position, present, random, seed);
      }
    }
  }

  private static void check(
      Cell cell, Boxes all, int[] position, List<Integer> present, Random random, int seed) {
    for (int i = 0; i < 40; i++) {
      int[] point = all.point(random);
      int from = random.nextInt(4) == 0 ? 0 : random.nextInt(position.length * 2);
      int best = random.nextBoolean() ? Cell.NONE : present.get(random.nextInt(present.size()));
      int expected = best;
      for (int number : present) {
        if (position[number] >= from
            && all.holds(number, point)
            && (expected == Cell.NONE || position[number] < position[expected])) {
          expected = number;
        }
      }
      int found = cell.find(point, from, best);
      assertThat(found < 0 ? -1 : position[found])
          .as("seed %d, from %d, best %d", seed, from, best)
          .isEqualTo(expected < 0 ? -1 : position[expected]);
    }
    Box other = all.inside(random);
    int from = random.nextBoolean() ? 0 : random.nextInt(position.length * 2);
    int to = random.nextBoolean() ? Integer.MAX_VALUE : random.nextInt(position.length * 2);
    int step = 1 + random.nextInt(2);
    List<Integer> overlapping = new ArrayList<>();
    Cell.Meets meets = cell.overlapping(other, from, to, n -> n % step == 0);
    for (int n = meets.next(); n != Cell.NONE; n = meets.next()) {
      overlapping.add(n);
    }
    assertThat(overlapping)
        .as("seed %d, %d to %d", seed, from, to)
        .containsExactlyInAnyOrderElementsOf(
            present.stream()
                .filter(n -> n % step == 0 && position[n] >= from && position[n] < to)
                .filter(n -> all.boxes.get(n).intersects(other))
                .toList());
  }
}
