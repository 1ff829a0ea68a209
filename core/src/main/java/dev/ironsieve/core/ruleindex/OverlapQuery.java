package dev.ironsieve.core.ruleindex;

import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntPredicate;
import java.util.stream.LongStream;

/**
 * Finds the enabled rules that overlap one of some boxes. They are found as they are asked for,
 * since the first few are often enough: where the boxes are narrow, in one after the other of the
 * cells that they lie in. Good until the order is updated.
 */
public final class OverlapQuery {
  private final RuleIndex index;
  private final List<Box> wanted;
  private List<Looked> cells; // in which the boxes lie; null if not all of them are narrow
  private boolean known; // whether that is known

  /** A cell, and the box that is looked for in it. */
  private record Looked(FirstMatch.Look look, Box box) {}

  OverlapQuery(RuleIndex index, List<Box> wanted) {
    this.index = index;
    this.wanted = wanted;
  }

  private List<Looked> cells() {
    List<Looked> out = new ArrayList<>();
    for (Box box : wanted) {
      List<FirstMatch.Look> own = index.cells(box);
      if (own == null) {
        return null;
      }
      own.forEach(look -> out.add(new Looked(look, box)));
    }
    return out;
  }

  /** Handles that were found. */
  private static final class Handles {
    private int size;
    private int[] places = {}; // by hash: one more than a handle, 0 if there is none

    /** False if it is there already. */
    boolean add(int handle) {
      if (4 * size >= places.length * 3) {
        int[] fewer = places;
        places = new int[Math.max(16, fewer.length * 2)];
        for (int other : fewer) {
          if (other != 0) {
            places[place(other - 1)] = other;
          }
        }
      }
      int at = place(handle);
      if (places[at] != 0) {
        return false;
      }
      places[at] = handle + 1;
      size++;
      return true;
    }

    /** Where a handle is or may be put. */
    private int place(int handle) {
      int mask = places.length - 1;
      int at = handle * 0x9E37_79B9 >>> 7 & mask;
      while (places[at] != 0 && places[at] != handle + 1) {
        at = at + 1 & mask;
      }
      return at;
    }
  }

  /**
   * Tests rules, in no particular order, until one of them passes. Where the boxes are wide, a rule
   * with several boxes may be asked about again.
   *
   * @param from lowest position wanted
   * @param to one more than the highest position wanted
   * @param which whether the rule, by its handle, is worth comparing its boxes
   * @param test whether the rule, which meets the boxes, will do
   * @return the handle of the rule that will do, or {@link RuleIndex#NONE}
   */
  public int some(int from, int to, IntPredicate which, IntPredicate test) {
    if (from >= to) {
      return RuleIndex.NONE;
    }
    if (!known) {
      cells = cells();
      known = true;
    }
    return cells == null ? someFar(from, to, which, test) : someNear(from, to, which, test);
  }

  private int someNear(int from, int to, IntPredicate which, IntPredicate test) {
    Handles asked = new Handles();
    for (Looked cell : cells) {
      Cell.Meets meets =
          cell.look.overlapping(cell.box, from, to, number -> which.test(index.ruleOf(number)));
      for (int number = meets.next(); number != Cell.NONE; number = meets.next()) {
        int handle = index.ruleOf(number);
        if (asked.add(handle) && test.test(handle)) {
          return handle;
        }
      }
    }
    return RuleIndex.NONE;
  }

  private int someFar(int from, int to, IntPredicate which, IntPredicate test) {
    int limit = index.endOfBoxesAbove(to);
    List<OverlapIndex.Query> queries = wanted.stream().map(box -> index.query(box, limit)).toList();
    long[] found = new long[OverlapIndex.Query.WORDS];
    for (int first = index.firstBoxAt(from) >> 6; first << 6 < limit; first += found.length) {
      Arrays.fill(found, 0);
      for (OverlapIndex.Query query : queries) {
        if (query.read(first)) {
          for (int word = 0; word < found.length; word++) {
            found[word] |= query.found[word];
          }
        }
      }
      for (int word = 0; word < found.length; word++) {
        for (long left = found[word]; left != 0; left &= left - 1) {
          int number = (first + word << 6) + Long.numberOfTrailingZeros(left);
          int handle = index.ruleOf(number);
          int position = index.position(handle);
          if (position >= from
              && position < to
              && which.test(handle)
              && isWanted(index.box(number))
              && test.test(handle)) {
            return handle;
          }
        }
      }
    }
    return RuleIndex.NONE;
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
        handle -> {
          all.add((long) index.position(handle) << 32 | handle);
          return false;
        });
    return all.build().sorted().distinct().mapToInt(packed -> (int) packed).toArray();
  }
}
