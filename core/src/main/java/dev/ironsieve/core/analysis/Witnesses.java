package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.StandingProof;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.parallel.Tasks;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.Arrays;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;

/**
 * The points that rules decide, indexed by position and by code. Such a point separates most pairs
 * of overlapping rules without a comparison of their boxes. Built once for all rules; outdated
 * after an edit.
 *
 * <p>The codes of both ends are cut into segments. The points of a cell, a segment of one end with
 * a segment of the other, are stored together, by position of their rules:
 *
 * <pre>
 *   starts:     where each cell begins among the entries, then the number of entries
 *   handles:    [ entry 0, entry 1, ... ]
 *   positions:  [ entry 0, entry 1, ... ]
 *   codes:      for each axis [ entry 0, entry 1, ... ]
 * </pre>
 *
 * For rules that lie in many cells, entries are also sorted by code on each axis but the ends.
 */
final class Witnesses {
  private static final int MOST_BITS = 6;

  /** Rules for each cell, about. */
  private static final int RULES_PER_CELL = 16;

  /** A box that lies in more cells is looked for on one axis, if fewer points lie in it there. */
  private static final int MANY_CELLS = 128;

  private final RuleIndex index;
  private final int axes;
  private final int shift;
  private final int segments;
  private final int[] starts;
  private final int[] handles;
  private final int[] positions;
  private final int[][] codes;
  private final Verdict[] verdicts;
  private final long[][] sorted; // for each axis [ code << 32 | entry, ascending ]

  /**
   * @param standings by handle
   */
  Witnesses(RuleIndex index, StandingProof[] standings) {
    this.index = index;
    axes = index.space().axes();
    int doublings = 31 - Integer.numberOfLeadingZeros(1 + index.size() / RULES_PER_CELL);
    int bits = Math.min(MOST_BITS, doublings / 2);
    segments = 1 << bits;
    shift = Integer.numberOfTrailingZeros(Space.CODES) - bits;
    starts = new int[segments * segments + 1];
    for (int i = 0; i < index.size(); i++) {
      if (standings[index.handleAt(i)] instanceof StandingProof.Decides decides) {
        starts[cell(decides.point()) + 1]++;
      }
    }
    for (int cell = 1; cell < starts.length; cell++) {
      starts[cell] += starts[cell - 1];
    }
    int count = starts[starts.length - 1];
    handles = new int[count];
    positions = new int[count];
    codes = new int[axes][count];
    verdicts = new Verdict[count];
    int[] next = Arrays.copyOf(starts, starts.length);
    for (int i = 0; i < index.size(); i++) {
      int handle = index.handleAt(i);
      if (standings[handle] instanceof StandingProof.Decides decides) {
        int entry = next[cell(decides.point())]++;
        handles[entry] = handle;
        positions[entry] = i;
        verdicts[entry] = index.verdict(handle);
        for (int axis = 0; axis < axes; axis++) {
          codes[axis][entry] = decides.point()[axis];
        }
      }
    }
    sorted = new long[axes][];
    if (starts.length > MANY_CELLS) {
      Tasks.each(axes - Space.SERVICE, i -> sorted[i + Space.SERVICE] = sorted(i + Space.SERVICE));
    }
  }

  private long[] sorted(int axis) {
    int[] own = codes[axis];
    return IntStream.range(0, own.length)
        .mapToLong(entry -> (long) own[entry] << Integer.SIZE | entry)
        .sorted()
        .toArray();
  }

  private int cell(int[] point) {
    return (point[Space.FROM] >>> shift) * segments + (point[Space.TO] >>> shift);
  }

  /**
   * The highest rule above {@code handle}, with another verdict, whose point lies in it and for
   * which a test holds; or {@link RuleIndex#NONE}.
   */
  int firstInside(int handle, IntPredicate test) {
    Search search = new Search(handle, test);
    index.region(handle).forEach(search::in);
    return search.best;
  }

  /** The search for the highest rule inside of another. */
  private final class Search {
    private final Verdict verdict;
    private final IntPredicate test;
    private int best = RuleIndex.NONE;
    private int limit; // only rules above this position are of use

    Search(int handle, IntPredicate test) {
      verdict = index.verdict(handle);
      limit = index.position(handle);
      this.test = test;
    }

    void in(Box box) {
      int[] narrowed = narrowed(box);
      int[] from = box.side(Space.FROM).shifted(shift);
      int[] to = box.side(Space.TO).shifted(shift);
      if (from.length * to.length > MANY_CELLS) {
        int axis = axisOfFewest(box, narrowed);
        if (axis >= 0 && entries(axis, box.side(axis)) < entries(from, to)) {
          onAxis(box, axis, narrowed);
          return;
        }
      }
      for (int i : from) {
        for (int j : to) {
          inCell(box, i * segments + j, narrowed);
        }
      }
    }

    private void inCell(Box box, int cell, int[] narrowed) {
      IntSet narrowest = box.side(narrowed[0]);
      int low = narrowest.min();
      int width = narrowest.max() - low;
      int[] own = codes[narrowed[0]];
      int end = starts[cell + 1];
      for (int entry = starts[cell]; entry < end && positions[entry] < limit; entry++) {
        int above = own[entry] - low;
        if (above >= 0 && above <= width) { // else it is not worth more looks
          look(box, entry, narrowed);
        }
      }
    }

    private void onAxis(Box box, int axis, int[] narrowed) {
      IntSet side = box.side(axis);
      for (int i = 0; i < side.intervals(); i++) {
        int end = rank(axis, side.last(i) + 1);
        for (int rank = rank(axis, side.first(i)); rank < end; rank++) {
          look(box, (int) sorted[axis][rank], narrowed);
        }
      }
    }

    private void look(Box box, int entry, int[] narrowed) {
      if (positions[entry] < limit
          && verdicts[entry] != verdict
          && holds(box, narrowed, entry)
          && test.test(handles[entry])) {
        best = handles[entry];
        limit = positions[entry];
      }
    }
  }

  /** The sorted axis on which the fewest points lie in a box; -1 if it narrows none. */
  private int axisOfFewest(Box box, int[] narrowed) {
    int best = -1;
    int fewest = Integer.MAX_VALUE;
    for (int axis : narrowed) {
      if (sorted[axis] != null) {
        int entries = entries(axis, box.side(axis));
        if (entries < fewest) {
          best = axis;
          fewest = entries;
        }
      }
    }
    return best;
  }

  /** The number of points in a side of an axis. */
  private int entries(int axis, IntSet side) {
    int entries = 0;
    for (int i = 0; i < side.intervals(); i++) {
      entries += rank(axis, side.last(i) + 1) - rank(axis, side.first(i));
    }
    return entries;
  }

  /** The number of points in some cells. */
  private int entries(int[] from, int[] to) {
    int entries = 0;
    for (int i : from) {
      for (int j : to) {
        int cell = i * segments + j;
        entries += starts[cell + 1] - starts[cell];
      }
    }
    return entries;
  }

  /** The number of codes of points below a code. */
  private int rank(int axis, int code) {
    int at = Arrays.binarySearch(sorted[axis], (long) code << Integer.SIZE);
    return at < 0 ? -at - 1 : at;
  }

  /**
   * The axes on which a box leaves something out, those on which it leaves out the most first; any
   * axis if there is none.
   */
  private int[] narrowed(Box box) {
    int[] out = new int[axes];
    int count = 0;
    for (int axis = 0; axis < axes; axis++) {
      IntSet side = box.side(axis);
      if (side != index.space().all(axis)) {
        int at = count++;
        for (; at > 0 && side.size() < box.side(out[at - 1]).size(); at--) {
          out[at] = out[at - 1];
        }
        out[at] = axis;
      }
    }
    return Arrays.copyOf(out, Math.max(1, count));
  }

  private boolean holds(Box box, int[] narrowed, int entry) {
    for (int axis : narrowed) {
      if (!box.side(axis).contains(codes[axis][entry])) {
        return false;
      }
    }
    return true;
  }
}
