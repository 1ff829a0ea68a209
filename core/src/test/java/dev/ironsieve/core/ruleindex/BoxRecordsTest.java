package dev.ironsieve.core.ruleindex;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** What is written down of boxes, against asking the boxes. */
class BoxRecordsTest {
  private static final int AXES = 5;
  private static final int CODES = 1000;
  private static final IntSet WHOLE = IntSet.range(0, CODES - 1);
  private static final int[] INTERVALS = {1, 2, 20, 64, 65, 200}; // up to 64 are written down

  private static IntSet side(Random random) {
    if (random.nextInt(3) == 0) {
      return WHOLE;
    }
    int[] cuts =
        random
            .ints(0, CODES)
            .distinct()
            .limit(2L * INTERVALS[random.nextInt(INTERVALS.length)])
            .sorted()
            .toArray();
    IntSet.Builder out = new IntSet.Builder();
    for (int i = 0; i < cuts.length; i += 2) {
      out.addInOrder(cuts[i], cuts[i + 1] - 1);
    }
    return out.build();
  }

  private static Box box(Random random) {
    IntSet[] sides = new IntSet[AXES];
    Arrays.setAll(sides, axis -> side(random));
    return new Box(sides);
  }

  private static void check(BoxRecords records, List<Box> boxes, Random random) {
    int held = 0;
    for (int number = 0; number < boxes.size(); number++) {
      for (int i = 0; i < 200; i++) {
        int known = random.nextInt(1 << AXES);
        Box box = boxes.get(number);
        int[] point = random.ints(AXES, 0, CODES + 50).toArray(); // some are not known
        boolean expected = true;
        for (int axis = 0; axis < AXES; axis++) {
          IntSet side = box.side(axis);
          expected &= (known >> axis & 1) != 0 || side == WHOLE || side.contains(point[axis]);
        }
        held += expected ? 1 : 0;
        assertThat(records.holds(records.start(number), number, point, known))
            .as("%s at %s, known %d", box, Arrays.toString(point), known)
            .isEqualTo(expected);
      }
    }
    assertThat(held).isPositive();
  }

  @Test
  void tellWhetherABoxHoldsAPoint() {
    Random random = new Random(1);
    List<Box> boxes = new ArrayList<>();
    for (int i = 0; i < 40; i++) {
      boxes.add(box(random));
    }
    IntSet[] whole = new IntSet[AXES];
    Arrays.fill(whole, WHOLE);
    BoxRecords records = new BoxRecords(whole, boxes);
    check(records, boxes, random);

    List<Box> more = new ArrayList<>(boxes);
    BoxRecords other = new BoxRecords(records, more);
    for (int i = 0; i < 20; i++) {
      more.add(box(random));
      other.add(more.getLast());
      boxes.add(box(random)); // each goes its own way
      records.add(boxes.getLast());
    }
    assertThat(other.size()).isEqualTo(60);
    check(other, more, random);
    check(records, boxes, random);
  }
}
