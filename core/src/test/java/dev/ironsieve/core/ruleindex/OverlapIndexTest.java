package dev.ironsieve.core.ruleindex;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** Which boxes may meet a box, against comparing all of them. */
class OverlapIndexTest {
  private static final int BUCKETS_OF_ENDS = 1 << 8;
  private static final int BUCKETS = 1 << 7;
  private static final int MOST_BUCKETS = 96;

  /** Boxes of random rules, again and again, so that there are several chunks of them. */
  private static List<Box> boxes(RuleIndex index, int count, Random random) {
    List<Box> some = new ArrayList<>();
    for (int i = 0; i < index.size(); i++) {
      some.addAll(index.region(index.handleAt(i)));
    }
    return new ArrayList<>(
        IntStream.range(0, count).mapToObj(i -> some.get(random.nextInt(some.size()))).toList());
  }

  private static BitSet found(OverlapIndex overlapping, Box box, int limit, int boxes) {
    OverlapIndex.Query query = overlapping.query(box, limit);
    BitSet out = new BitSet();
    for (int first = 0; first << 6 < boxes; first += OverlapIndex.Query.WORDS) {
      if (query.read(first)) {
        for (int word = 0; word < OverlapIndex.Query.WORDS; word++) {
          for (long left = query.found[word]; left != 0; left &= left - 1) {
            out.set((first + word << 6) + Long.numberOfTrailingZeros(left));
          }
        }
      }
    }
    return out;
  }

  private static BitSet buckets(IntSet side, int axis) {
    int width = Space.CODES / (axis == Space.FROM || axis == Space.TO ? BUCKETS_OF_ENDS : BUCKETS);
    BitSet out = new BitSet();
    for (int i = 0; i < side.intervals(); i++) {
      out.set(side.first(i) / width, side.last(i) / width + 1);
    }
    return out;
  }

  private static void check(
      OverlapIndex overlapping,
      Space space,
      List<Box> boxes,
      BitSet present,
      Random random,
      String where) {
    for (int i = 0; i < 12; i++) {
      Box box = boxes.get(random.nextInt(boxes.size()));
      int limit = random.nextInt(3) == 0 ? boxes.size() : random.nextInt(boxes.size() + 1);
      BitSet found = found(overlapping, box, limit, boxes.size());
      // The axis that says most comes first; that one at least is always looked at.
      int narrowest =
          IntStream.range(0, space.axes())
              .filter(axis -> box.side(axis) != space.all(axis))
              .filter(axis -> buckets(box.side(axis), axis).cardinality() <= MOST_BUCKETS)
              .boxed()
              .min(Comparator.comparing(axis -> buckets(box.side(axis), axis).cardinality()))
              .orElse(-1);
      for (int number = 0; number < boxes.size(); number++) {
        Box other = boxes.get(number);
        boolean asked = present.get(number) && number < limit;
        if (asked && other.intersects(box)) {
          assertThat(found.get(number)).as("%s: box %d", where, number).isTrue();
        }
        boolean may =
            asked
                && (narrowest < 0
                    || buckets(other.side(narrowest), narrowest)
                        .intersects(buckets(box.side(narrowest), narrowest)));
        if (!may) {
          assertThat(found.get(number)).as("%s: box %d", where, number).isFalse();
        }
      }
    }
  }

  @Test
  void allThatMeetAreFoundAndFewOthers() {
    for (int seed = 0; seed < Math.max(5, Rounds.of(16)); seed++) {
      Random random = new Random(seed);
      RuleIndex index = new RuleIndex(new SmallWorld(seed, seed % 2 == 0).rulebase(30));
      int count = new int[] {1, 63, 64, 300, 4100}[seed % 5];
      if (index.size() == 0 || index.endOfBoxesAbove(index.size()) == 0) {
        continue;
      }
      List<Box> boxes = boxes(index, count, random);
      OverlapIndex overlapping = new OverlapIndex(index.space(), boxes);
      BitSet present = new BitSet();
      present.set(0, count);
      check(overlapping, index.space(), boxes, present, random, "seed " + seed);
      for (int i = 0; i < 150; i++) {
        boxes.add(boxes(index, 1, random).getFirst());
        overlapping.add(boxes.size() - 1, boxes.getLast());
        present.set(boxes.size() - 1);
      }
      for (int i = 0; i < 40; i++) {
        int out = random.nextInt(boxes.size());
        overlapping.remove(out);
        present.clear(out);
      }
      overlapping.remove(boxes.size() + 10_000); // which is not there
      check(overlapping, index.space(), boxes, present, random, "seed " + seed + ", later");
    }
  }
}
