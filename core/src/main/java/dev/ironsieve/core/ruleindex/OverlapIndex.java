package dev.ironsieve.core.ruleindex;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;

/**
 * An index that finds the boxes that may overlap a box. The codes of each axis fall into buckets of
 * equal width; for each bucket a row of bits says which boxes touch it:
 *
 * <pre>
 *   rows[axis][bucket]   bit b: box b has a code in the bucket
 *   wide[axis]           bit b: box b has every code of the axis
 * </pre>
 *
 * A query ANDs, over the axes, the OR of the rows that it touches: O(axes · buckets touched · boxes
 * / 64). What is left has to be compared one by one.
 */
final class OverlapIndex {
  private static final int BITS = 7;

  /** For the ends, which have the most classes. */
  private static final int BITS_OF_ENDS = 8;

  /** An axis on which a query touches more buckets is left to the comparison one by one. */
  private static final int MOST_BUCKETS = 96;

  /** With so few words left it is quicker to compare what is in them. */
  private static final int FEW_WORDS = 4;

  /** Words that are looked at together, so that what is read of the rows stays near. */
  private static final int CHUNK = 64;

  private final Space space;
  private final long[][][] rows;
  private final long[][] wide;
  private long[] present;
  private int words;

  /**
   * @param boxes by number
   */
  OverlapIndex(Space space, List<Box> boxes) {
    this.space = space;
    words = (boxes.size() >> 6) + 1;
    rows = new long[space.axes()][][];
    for (int axis = 0; axis < rows.length; axis++) {
      rows[axis] = new long[Space.CODES >>> shift(axis)][];
    }
    wide = new long[space.axes()][words];
    present = new long[words];
    Arrays.fill(present, 0, boxes.size() >> 6, -1L);
    present[boxes.size() >> 6] = (1L << boxes.size()) - 1;
    IntStream.range(0, rows.length)
        .parallel()
        .forEach(
            axis -> {
              for (int number = 0; number < boxes.size(); number++) {
                add(axis, number, boxes.get(number).side(axis));
              }
            });
  }

  OverlapIndex(OverlapIndex other) {
    space = other.space;
    words = other.words;
    rows = new long[other.rows.length][][];
    for (int axis = 0; axis < rows.length; axis++) {
      rows[axis] = copy(other.rows[axis]);
    }
    wide = copy(other.wide);
    present = other.present.clone();
  }

  private static long[][] copy(long[][] rows) {
    return Arrays.stream(rows).map(row -> row == null ? null : row.clone()).toArray(long[][]::new);
  }

  private static int shift(int axis) {
    boolean end = axis == Space.FROM || axis == Space.TO;
    return Integer.numberOfTrailingZeros(Space.CODES) - (end ? BITS_OF_ENDS : BITS);
  }

  private void set(int axis, int bucket, int number) {
    if (rows[axis][bucket] == null) {
      rows[axis][bucket] = new long[words];
    }
    rows[axis][bucket][number >> 6] |= 1L << number;
  }

  void add(int number, Box box) {
    grow(number);
    present[number >> 6] |= 1L << number;
    for (int axis = 0; axis < rows.length; axis++) {
      add(axis, number, box.side(axis));
    }
  }

  private void add(int axis, int number, IntSet side) {
    if (side == space.all(axis)) {
      wide[axis][number >> 6] |= 1L << number;
      return;
    }
    int shift = shift(axis);
    for (int i = 0; i < side.intervals(); i++) {
      for (int bucket = side.first(i) >>> shift; bucket <= side.last(i) >>> shift; bucket++) {
        set(axis, bucket, number);
      }
    }
  }

  private void grow(int number) {
    if (number >> 6 < words) {
      return;
    }
    words = Math.max((number >> 6) + 1, words + words / 2 + 1);
    present = Arrays.copyOf(present, words);
    for (int axis = 0; axis < rows.length; axis++) {
      wide[axis] = Arrays.copyOf(wide[axis], words);
      for (int bucket = 0; bucket < rows[axis].length; bucket++) {
        if (rows[axis][bucket] != null) {
          rows[axis][bucket] = Arrays.copyOf(rows[axis][bucket], words);
        }
      }
    }
  }

  /** Removes a box or point, if it is there. */
  public void remove(int number) {
    if (number >> 6 >= words) {
      return;
    }
    long keep = ~(1L << number);
    present[number >> 6] &= keep;
    for (int axis = 0; axis < rows.length; axis++) {
      wide[axis][number >> 6] &= keep;
      for (long[] row : rows[axis]) {
        if (row != null) {
          row[number >> 6] &= keep;
        }
      }
    }
  }

  /**
   * A question which boxes may meet {@code box}: all that do are among them. It is answered in
   * chunks.
   *
   * @param limit only boxes with numbers below this are wanted
   */
  public Query query(Box box, int limit) {
    return new Query(box, limit);
  }

  /**
   * One box that is asked for. The axes on which it touches the fewest buckets come first, and from
   * then on only words are looked at in which something is left.
   */
  final class Query {
    /** Numbers of boxes are answered in pieces of this many words of 64. */
    public static final int WORDS = CHUNK;

    /** The answer: bit b of word w is box 64 * (first + w) + b. */
    public final long[] found = new long[CHUNK];

    private final Box box;
    private final int limit;
    private final int upTo;
    private final int[] axes;
    private final int[] live = new int[CHUNK]; // words of the chunk that are not 0
    private final long[] held = new long[CHUNK];

    private Query(Box box, int limit) {
      this.box = box;
      this.limit = limit;
      upTo = Math.min(words, (limit + 63) >> 6);
      axes = fewestBucketsFirst(box);
    }

    /** Answers the chunk that begins at word {@code first}; false if nothing is in it. */
    public boolean read(int first) {
      int left = Math.min(CHUNK, upTo - first);
      Arrays.fill(found, Math.max(0, left), CHUNK, 0);
      if (left <= 0) {
        return false;
      }
      if (axes.length == 0) {
        System.arraycopy(present, first, found, 0, left);
      }
      for (int word = 0; word < left; word++) {
        live[word] = word;
      }
      for (int i = 0; i < axes.length && (i == 0 || left > FEW_WORDS); i++) {
        narrow(axes[i], first, left, i == 0);
        int kept = 0;
        for (int j = 0; j < left; j++) {
          if (found[live[j]] != 0) {
            live[kept++] = live[j];
          }
        }
        left = kept;
      }
      int last = (limit >> 6) - first;
      if (last >= 0 && last < CHUNK) {
        found[last] &= (1L << limit) - 1;
      }
      return left > 0;
    }

    private void narrow(int axis, int first, int count, boolean fresh) {
      long[] any = wide[axis];
      for (int i = 0; i < count; i++) {
        held[i] = any[first + live[i]];
      }
      IntSet side = box.side(axis);
      int shift = shift(axis);
      int done = -1;
      for (int i = 0; i < side.intervals(); i++) {
        int last = side.last(i) >>> shift;
        for (int b = Math.max(done + 1, side.first(i) >>> shift); b <= last; b++) {
          long[] row = rows[axis][b];
          for (int j = 0; row != null && j < count; j++) {
            held[j] |= row[first + live[j]];
          }
        }
        done = last;
      }
      for (int i = 0; i < count; i++) {
        found[live[i]] = fresh ? held[i] : found[live[i]] & held[i];
      }
    }
  }

  private int[] fewestBucketsFirst(Box box) {
    int[] axes = new int[rows.length];
    int[] buckets = new int[rows.length];
    int count = 0;
    for (int axis = 0; axis < rows.length; axis++) {
      IntSet side = box.side(axis);
      int touched = side == space.all(axis) ? Integer.MAX_VALUE : bucketsOf(side, shift(axis));
      if (touched <= MOST_BUCKETS) {
        int at = count++;
        for (; at > 0 && buckets[at - 1] > touched; at--) {
          axes[at] = axes[at - 1];
          buckets[at] = buckets[at - 1];
        }
        axes[at] = axis;
        buckets[at] = touched;
      }
    }
    return Arrays.copyOf(axes, count);
  }

  private static int bucketsOf(IntSet side, int shift) {
    int buckets = 0;
    int done = -1;
    for (int i = 0; i < side.intervals() && buckets <= MOST_BUCKETS; i++) {
      int last = side.last(i) >>> shift;
      buckets += last - Math.max(done + 1, side.first(i) >>> shift) + 1;
      done = last;
    }
    return buckets;
  }
}
