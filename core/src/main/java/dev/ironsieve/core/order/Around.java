package dev.ironsieve.core.order;

import dev.ironsieve.core.space.Box;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntPredicate;
import java.util.stream.LongStream;

/**
 * The enabled rules that meet one of some boxes. Where the boxes are narrow, all of them are found
 * at once, from the cells that the boxes lie in; else as they are asked for, since the first few
 * are often enough. Good until the order is updated.
 */
public final class Around {
  private final Order order;
  private final List<Box> wanted;
  private final int[] near; // slots, by position; null if they are found as they are asked for

  /**
   * @param from lowest position that will be asked for
   * @param to one more than the highest
   */
  Around(Order order, List<Box> wanted, int from, int to) {
    this.order = order;
    this.wanted = wanted;
    near = near(from, to);
  }

  private int[] near(int from, int to) {
    LongStream.Builder found = LongStream.builder();
    for (Box box : wanted) {
      int[] numbers = order.near(box, from, to);
      if (numbers == null) {
        return null;
      }
      for (int number : numbers) {
        found.add(byPosition(order.ruleOf(number)));
      }
    }
    return slots(found);
  }

  private long byPosition(int slot) {
    return (long) order.position(slot) << 32 | slot;
  }

  private static int[] slots(LongStream.Builder byPosition) {
    return byPosition.build().sorted().distinct().mapToInt(packed -> (int) packed).toArray();
  }

  /**
   * Asks about rules, until one of them will do; those that stand higher first, if there was no
   * update of the order ever. Then too, where the boxes are wide, a rule with several boxes may be
   * asked about again.
   *
   * @param from lowest position wanted
   * @param to one more than the highest position wanted
   * @param which whether the rule, by its slot, is worth comparing its boxes
   * @param test whether the rule, which meets the boxes, will do
   * @return the slot of the rule that will do, or {@link Order#NONE}
   */
  public int some(int from, int to, IntPredicate which, IntPredicate test) {
    if (from >= to) {
      return Order.NONE;
    }
    return near == null ? someFar(from, to, which, test) : someNear(from, to, which, test);
  }

  private int someNear(int from, int to, IntPredicate which, IntPredicate test) {
    for (int i = firstFrom(from); i < near.length && order.position(near[i]) < to; i++) {
      if (which.test(near[i]) && test.test(near[i])) {
        return near[i];
      }
    }
    return Order.NONE;
  }

  private int firstFrom(int position) {
    int low = 0;
    int high = near.length;
    while (low < high) {
      int middle = (low + high) >>> 1;
      if (order.position(near[middle]) < position) {
        low = middle + 1;
      } else {
        high = middle;
      }
    }
    return low;
  }

  private int someFar(int from, int to, IntPredicate which, IntPredicate test) {
    int limit = order.endOfBoxesAbove(to);
    List<Meeting.Query> queries = wanted.stream().map(box -> order.query(box, limit)).toList();
    long[] found = new long[Meeting.Query.WORDS];
    for (int first = order.firstBoxAt(from) >> 6; first << 6 < limit; first += found.length) {
      Arrays.fill(found, 0);
      for (Meeting.Query query : queries) {
        if (query.read(first)) {
          for (int word = 0; word < found.length; word++) {
            found[word] |= query.found[word];
          }
        }
      }
      for (int word = 0; word < found.length; word++) {
        for (long left = found[word]; left != 0; left &= left - 1) {
          int number = (first + word << 6) + Long.numberOfTrailingZeros(left);
          int slot = order.ruleOf(number);
          int position = order.position(slot);
          if (position >= from
              && position < to
              && which.test(slot)
              && isWanted(order.box(number))
              && test.test(slot)) {
            return slot;
          }
        }
      }
    }
    return Order.NONE;
  }

  private boolean isWanted(Box box) {
    for (Box other : wanted) {
      if (box.intersects(other)) {
        return true;
      }
    }
    return false;
  }

  /**
   * The rules, by position.
   *
   * @param from lowest position wanted
   * @param to one more than the highest position wanted
   * @param which only rules for which this holds are wanted
   */
  public int[] all(int from, int to, IntPredicate which) {
    LongStream.Builder all = LongStream.builder();
    some(
        from,
        to,
        which,
        slot -> {
          all.add(byPosition(slot));
          return false;
        });
    return slots(all);
  }
}
