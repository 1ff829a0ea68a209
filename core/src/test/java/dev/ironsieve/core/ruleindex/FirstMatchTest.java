package dev.ironsieve.core.ruleindex;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Random;
import java.util.SplittableRandom;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** The index of boxes by the cells of their ends, however large it is, against all boxes. */
class FirstMatchTest {
  private static final int MOST_CELLS = 64;

  /** Rules to expect, and how many segments each end is cut into for them. */
  private static final int[][] SIZES = {
    {0, 2},
    {127, 2},
    {255, 2},
    {256, 4},
    {1023, 4},
    {1024, 8},
    {4096, 16},
    {16384, 32},
    {65536, 64},
    {10_000_000, 64}
  };

  /** The boxes of some rules. */
  private static final class World {
    private final RuleIndex order;
    private final List<Box> boxes = new ArrayList<>();
    private final List<Integer> positions = new ArrayList<>(); // of each box's rule

    World(int seed) {
      order = new RuleIndex(new SmallWorld(seed, seed % 2 == 0).rulebase(60));
      for (int i = 0; i < order.size(); i++) {
        for (Box box : order.region(order.handleAt(i))) {
          boxes.add(box);
          positions.add(i);
        }
      }
    }

    FirstMatch index(int rules) {
      return new FirstMatch(order.space(), new ArrayList<>(boxes), positions::get, rules);
    }

    /** The first box, among some, that holds the point: the obvious way. */
    private int first(int[] point, int from, IntPredicate there) {
      int best = FirstMatch.NONE;
      for (int i = 0; i < boxes.size(); i++) {
        boolean fits = there.test(i) && positions.get(i) >= from && boxes.get(i).contains(point);
        if (fits && (best == FirstMatch.NONE || positions.get(i) < positions.get(best))) {
          best = i;
        }
      }
      return best;
    }

    private BitSet above(int end, int[] point, BitSet there) {
      BitSet out = new BitSet();
      there.stream()
          .filter(box -> positions.get(box) < end && boxes.get(box).contains(point))
          .forEach(out::set);
      return out;
    }

    void check(FirstMatch index, BitSet there, int seed, String where) {
      SplittableRandom random = new SplittableRandom(seed);
      for (int i = 0; i < 80; i++) {
        Box box = boxes.get(random.nextInt(boxes.size()));
        int[] point = order.space().pick(box, random);
        int from = random.nextInt(3) == 0 ? 0 : random.nextInt(order.size() + 1);
        int expected = first(point, from, there::get);
        int found = index.find(point, from);
        assertThat(found == FirstMatch.NONE ? -1 : positions.get(found))
            .as("%s: from %d at %s", where, from, Arrays.toString(point))
            .isEqualTo(expected == FirstMatch.NONE ? -1 : positions.get(expected));
        BitSet holding = new BitSet();
        index.holding(point, from, boxes.size(), holding::set);
        assertThat(holding).as("%s: above %d", where, from).isEqualTo(above(from, point, there));
      }
    }
  }

  @Test
  void findsWhatGoingDownAllBoxesFinds() {
    for (int seed = 0; seed < 4 + Rounds.of(20); seed++) {
      World world = new World(seed);
      if (world.boxes.isEmpty()) {
        continue;
      }
      int rules = SIZES[seed * 3 % SIZES.length][0];
      String where = "seed " + seed + ", for " + rules;
      FirstMatch index = world.index(rules);
      BitSet there = new BitSet();
      there.set(0, world.boxes.size());
      world.check(index, there, seed, where);
      Random random = new Random(seed);
      for (int i = 0; i < 30; i++) {
        int box = random.nextInt(world.boxes.size());
        if (there.get(box)) {
          index.remove(box);
        } else {
          index.add(box);
        }
        there.flip(box);
        if (i % 5 == 4) {
          world.check(index, there, seed + i, where + " after " + i);
        }
      }
    }
  }

  @Test
  void allThatMeetABoxStandInItsCells() {
    int many = 0;
    int wide = 0; // at one end
    for (int seed = 0; seed < 4 + Rounds.of(20); seed++) {
      World world = new World(seed);
      for (int[] size : SIZES) {
        FirstMatch index = world.index(size[0]);
        for (int i = 0; i < Math.min(40, world.boxes.size()); i++) {
          Box box = world.boxes.get(i);
          String where = "seed " + seed + ", for " + size[0] + ", box " + i;
          int rows = segments(box, Space.FROM, size[1]);
          int columns = segments(box, Space.TO, size[1]);
          if (rows * columns > MOST_CELLS) {
            assertThat(index.cells(box, true)).as(where).isNull();
            many++;
            continue;
          }
          List<FirstMatch.Look> looks = index.cells(box, true);
          assertThat(looks).as(where).hasSize(rows * columns + 1);
          assertThat(index.cells(box, false))
              .as(where)
              .extracting(FirstMatch.Look::cell)
              .isEqualTo(looks.stream().map(FirstMatch.Look::cell).toList());
          BitSet found = new BitSet();
          int[] times = new int[world.boxes.size()];
          for (FirstMatch.Look look : looks) {
            Cell.Meets meets = look.overlapping(box, 0, Integer.MAX_VALUE, n -> true);
            for (int n = meets.next(); n != Cell.NONE; n = meets.next()) {
              found.set(n);
              times[n]++;
            }
          }
          for (int n = 0; n < times.length; n++) {
            boolean wideFrom = isFamily(world.order.space(), world.boxes.get(n), Space.FROM);
            boolean wideTo = isFamily(world.order.space(), world.boxes.get(n), Space.TO);
            assertThat(times[n])
                .as(where + ", how often it tells " + n)
                .isLessThanOrEqualTo((wideFrom ? 1 : rows) * (wideTo ? 1 : columns));
            wide += times[n] > 0 && wideFrom != wideTo && rows * columns > 1 ? 1 : 0;
          }
          assertThat(found.stream().toArray())
              .as(where)
              .isEqualTo(
                  IntStream.range(0, world.boxes.size())
                      .filter(n -> world.boxes.get(n).intersects(box))
                      .toArray());
        }
      }
    }
    assertThat(many).isPositive();
    assertThat(wide).isPositive();
  }

  private static int segments(Box box, int end, int of) {
    BitSet out = new BitSet();
    for (int i = 0; i < box.side(end).intervals(); i++) {
      out.set(
          box.side(end).first(i) / (Space.CODES / of),
          box.side(end).last(i) / (Space.CODES / of) + 1);
    }
    return out.cardinality();
  }

  @Test
  void cellsAreMadeOnlyForThoseWhoMay() {
    for (int seed = 0; seed < 4; seed++) {
      World world = new World(seed);
      for (Box box : world.boxes) {
        assertThat(world.index(0).cells(box, false)).isNull();
      }
    }
  }

  /** What has a whole family of addresses at both ends is in one cell, for all others. */
  @Test
  void wideBoxesStandOnce() {
    int wide = 0;
    for (int seed = 0; seed < 6; seed++) {
      World world = new World(seed);
      FirstMatch index = world.index(256);
      for (int i = 0; i < world.boxes.size(); i++) {
        Box box = world.boxes.get(i);
        if (isFamily(world.order.space(), box, Space.FROM)
            && isFamily(world.order.space(), box, Space.TO)) {
          if (index.cells(box, true) == null) {
            continue; // so many that it is not quick
          }
          wide++;
          List<FirstMatch.Look> looks = index.cells(box, true);
          assertThat(found(looks.getLast(), box).get(i)).isTrue();
          for (FirstMatch.Look other : looks.subList(0, looks.size() - 1)) {
            assertThat(found(other, box).get(i)).isFalse();
          }
        }
      }
    }
    assertThat(wide).isPositive();
  }

  private static BitSet found(FirstMatch.Look look, Box box) {
    BitSet found = new BitSet();
    Cell.Meets meets = look.overlapping(box, 0, Integer.MAX_VALUE, n -> true);
    for (int n = meets.next(); n != Cell.NONE; n = meets.next()) {
      found.set(n);
    }
    return found;
  }

  private static boolean isFamily(Space space, Box box, int end) {
    return Arrays.stream(Family.values())
        .anyMatch(family -> box.side(end).equals(space.family(end, family)));
  }
}
