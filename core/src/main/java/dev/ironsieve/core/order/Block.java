package dev.ironsieve.core.order;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.Arrays;
import java.util.Comparator;
import java.util.function.IntFunction;

/**
 * First match among a few boxes by bit vectors (Lakshman, Stiliadis: High-Speed Policy-based Packet
 * Forwarding Using Efficient Multi-dimensional Range Matching, SIGCOMM 1998): on each axis that
 * some box narrows, the labels are cut where a box begins or ends, and each piece has a row with a
 * bit for each box that holds it. The lowest bit that all rows of a point have in common is the
 * first match.
 */
final class Block {
  /** Most boxes in one block. */
  static final int MOST = 512;

  /** Fewer boxes are compared one by one. */
  private static final int FEW = 10;

  private static final int[] NO_CUTS = {};

  /** Numbers of the boxes, by position of their rules. */
  final int[] boxes;

  private final Box[] few; // the boxes themselves, if there are few
  private final int words;
  private final int[] axes; // those that some box narrows
  private final int[][] cuts; // per such axis the labels at which a piece begins, but the first
  private final int[][]
      starts; // per such axis, by the highest bits of a label: a piece to start at
  private final int[] shifts; // per such axis how many bits of a label are not the highest
  private final long[][] rows; // per such axis [piece * words + word]

  /**
   * @param boxes numbers, by position of their rules
   * @param known gives a box by its number
   * @param ranges for each axis the labels that a question can bring
   */
  Block(int[] boxes, IntFunction<Box> known, IntSet[] ranges) {
    this.boxes = boxes;
    Box[] all = Arrays.stream(boxes).mapToObj(known).toArray(Box[]::new);
    words = (boxes.length + 63) >> 6;
    if (boxes.length <= FEW) {
      few = all;
      axes = NO_CUTS;
      cuts = new int[0][];
      starts = new int[0][];
      shifts = NO_CUTS;
      rows = new long[0][];
      return;
    }
    few = null;
    int[] narrowed = new int[ranges.length];
    int count = 0;
    for (int axis = 0; axis < ranges.length; axis++) {
      for (Box box : all) {
        IntSet side = box.side(axis);
        if (side != ranges[axis] && !side.containsAll(ranges[axis])) {
          narrowed[count++] = axis;
          break;
        }
      }
    }
    axes = mostNarrowingFirst(Arrays.copyOf(narrowed, count), all, ranges);
    cuts = new int[count][];
    starts = new int[count][];
    shifts = new int[count];
    rows = new long[count][];
    for (int i = 0; i < count; i++) {
      cuts[i] = cuts(axes[i], all, ranges[axes[i]]);
      shifts[i] = shift(cuts[i].length);
      starts[i] = starts(cuts[i], shifts[i]);
      rows[i] = rows(axes[i], all, ranges[axes[i]], cuts[i]);
    }
  }

  /** So that a point is given up early on. */
  private int[] mostNarrowingFirst(int[] axes, Box[] all, IntSet[] ranges) {
    return Arrays.stream(axes)
        .boxed()
        .sorted(Comparator.comparingLong(axis -> widths(axis, all, ranges[axis])))
        .mapToInt(Integer::intValue)
        .toArray();
  }

  /** The sum, over the boxes, of how many labels of the range they hold. */
  private long widths(int axis, Box[] all, IntSet range) {
    long sum = 0;
    for (Box box : all) {
      IntSet side = box.side(axis);
      for (int i = side.interval(range.min());
          i < side.intervals() && side.first(i) <= range.max();
          i++) {
        sum += Math.min(side.last(i), range.max()) - Math.max(side.first(i), range.min()) + 1L;
      }
    }
    return sum / (range.max() - range.min() >> 10);
  }

  /** So that there are about as many starts as cuts. */
  private static int shift(int cuts) {
    int bits = 32 - Integer.numberOfLeadingZeros(Math.max(1, cuts));
    return Integer.numberOfTrailingZeros(Space.LABELS) - bits;
  }

  private static int[] starts(int[] cuts, int shift) {
    int[] out = new int[(Space.LABELS >>> shift)];
    int piece = 0;
    for (int i = 0; i < out.length; i++) {
      while (piece < cuts.length && cuts[piece] <= i << shift) {
        piece++;
      }
      out[i] = piece;
    }
    return out;
  }

  private int[] cuts(int axis, Box[] all, IntSet range) {
    int low = range.min();
    int high = range.max();
    int[] found = new int[16];
    int count = 0;
    IntSet before = null;
    for (Box box : all) {
      IntSet side = box.side(axis);
      if (side == before) {
        continue;
      }
      before = side;
      for (int i = side.interval(low); i < side.intervals() && side.first(i) <= high; i++) {
        if (count + 2 > found.length) {
          found = Arrays.copyOf(found, count * 2);
        }
        if (side.first(i) > low) {
          found[count++] = side.first(i);
        }
        if (side.last(i) < high) {
          found[count++] = side.last(i) + 1;
        }
      }
    }
    if (count == 0) {
      return NO_CUTS;
    }
    Arrays.sort(found, 0, count);
    int distinct = 1;
    for (int i = 1; i < count; i++) {
      if (found[i] != found[distinct - 1]) {
        found[distinct++] = found[i];
      }
    }
    return Arrays.copyOf(found, distinct);
  }

  private long[] rows(int axis, Box[] all, IntSet range, int[] cuts) {
    long[] out = new long[(cuts.length + 1) * words];
    for (int b = 0; b < boxes.length; b++) {
      IntSet side = all[b].side(axis);
      int word = b >> 6;
      long bit = 1L << b;
      int high = range.max();
      for (int i = side.interval(range.min()); i < side.intervals() && side.first(i) <= high; i++) {
        int to = piece(cuts, Math.min(side.last(i), high));
        for (int p = piece(cuts, Math.max(side.first(i), range.min())); p <= to; p++) {
          out[p * words + word] |= bit;
        }
      }
    }
    return out;
  }

  /** How many of {@code cuts} are not above {@code label}. Without branches in the loop. */
  private static int piece(int[] cuts, int label) {
    int base = 0;
    int left = cuts.length;
    while (left > 1) {
      int half = left >>> 1;
      base = cuts[base + half - 1] <= label ? base + half : base;
      left -= half;
    }
    return left == 1 && cuts[base] <= label ? base + 1 : base;
  }

  /** The first of {@link #boxes}, counted from {@code from}, that holds the point, or -1. */
  int find(int[] point, int from) {
    if (few != null) {
      for (int i = from; i < few.length; i++) {
        if (few[i].contains(point)) {
          return i;
        }
      }
      return -1;
    }
    int[] offset = new int[axes.length];
    int known = 0; // offsets are looked up when the rows before have left something
    for (int word = from >> 6; word < words; word++) {
      long held = word == words - 1 ? lastWord() : -1L;
      if (word == from >> 6) {
        held &= -1L << from;
      }
      for (int i = 0; i < offset.length && held != 0; i++) {
        if (i == known) {
          offset[known++] = piece(i, point[axes[i]]) * words;
        }
        held &= rows[i][offset[i] + word];
      }
      if (held != 0) {
        return (word << 6) + Long.numberOfTrailingZeros(held);
      }
    }
    return -1;
  }

  private int piece(int i, int label) {
    int[] ends = cuts[i];
    int piece = starts[i][label >>> shifts[i]];
    while (piece < ends.length && ends[piece] <= label) {
      piece++;
    }
    return piece;
  }

  private long lastWord() {
    return (boxes.length & 63) == 0 ? -1L : (1L << boxes.length) - 1;
  }

  /** Bytes taken by the rows and cuts. */
  long bytes() {
    long bytes = 4L * boxes.length;
    for (int i = 0; i < axes.length; i++) {
      bytes += 4L * (cuts[i].length + starts[i].length) + 8L * rows[i].length;
    }
    return bytes;
  }
}
