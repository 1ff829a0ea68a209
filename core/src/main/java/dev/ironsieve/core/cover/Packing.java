package dev.ironsieve.core.cover;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.Arrays;
import java.util.List;

/**
 * A target box and boxes that meet it, as bits: each axis is cut down to the classes that these
 * boxes tell apart inside the target (see {@link Cut}), and the bits of all axes stand behind each
 * other in one array.
 *
 * <pre>
 *   word   0            1            2            3
 *          from 0..63 | to 0..63   | to 64..127 | service 0..63   ...
 *   offset 0            1                         3
 * </pre>
 */
final class Packing {
  private final Cut[] cuts;

  /** First word of each axis; one more for the end. */
  final int[] offset;

  final long[] target;
  private long[][] boxes;
  private int size;

  /**
   * @param known boxes that meet the target; they are numbered as they stand here
   */
  Packing(Box target, List<Box> known) {
    this(target, known, null);
  }

  /**
   * The same, quicker where the first of the boxes are packed already.
   *
   * @param before the same target with the first boxes; or null
   */
  Packing(Box target, List<Box> known, Packing before) {
    cuts = new Cut[target.axes()];
    offset = new int[cuts.length + 1];
    for (int axis = 0; axis < cuts.length; axis++) {
      Cut cut = before == null ? new Cut(target.side(axis)) : before.cuts[axis];
      cuts[axis] = cut.with(axis, known);
      offset[axis + 1] = offset[axis] + cuts[axis].words;
    }
    this.target = new long[offset[cuts.length]];
    boxes = new long[known.size()][offset[cuts.length]];
    size = known.size();
    for (int axis = 0; axis < cuts.length; axis++) {
      Cut cut = cuts[axis];
      System.arraycopy(cut.full(), 0, this.target, offset[axis], cut.words);
      for (int i = 0; i < size; i++) {
        System.arraycopy(cut.bits(i), 0, boxes[i], offset[axis], cut.words);
      }
    }
  }

  /** The box that a non-empty packed one stands for, cut to the target. */
  Box unpack(long[] packed) {
    IntSet[] sides = new IntSet[cuts.length];
    for (int axis = 0; axis < sides.length; axis++) {
      sides[axis] = cuts[axis].side(packed, offset[axis]);
    }
    return new Box(sides);
  }

  int axes() {
    return cuts.length;
  }

  int size() {
    return size;
  }

  /** Adds a box that distinguishes nothing new; returns its number. */
  int add(long[] box) {
    if (size == boxes.length) {
      boxes = Arrays.copyOf(boxes, size * 2 + 8);
    }
    boxes[size] = box;
    return size++;
  }

  long[] box(int number) {
    return boxes[number];
  }

  int[] all() {
    int[] all = new int[size];
    Arrays.setAll(all, i -> i);
    return all;
  }

  /** The axes, as bits, on which {@code left} is not inside the box; -1 if they are disjoint. */
  long sticksOut(long[] left, long[] box) {
    long out = 0;
    for (int axis = 0; axis + 1 < offset.length; axis++) {
      long inside = 0;
      long outside = 0;
      for (int word = offset[axis]; word < offset[axis + 1]; word++) {
        inside |= left[word] & box[word];
        outside |= left[word] & ~box[word];
      }
      if (inside == 0) {
        return -1;
      }
      if (outside != 0) {
        out |= 1L << axis;
      }
    }
    return out;
  }

  /** Removes from {@code left} the side of the box on one axis. */
  void remove(long[] left, long[] box, int axis) {
    for (int word = offset[axis]; word < offset[axis + 1]; word++) {
      left[word] &= ~box[word];
    }
  }

  static boolean holds(long[] outer, long[] inner) {
    for (int word = 0; word < inner.length; word++) {
      if ((inner[word] & ~outer[word]) != 0) {
        return false;
      }
    }
    return true;
  }

  /** One class of each axis of a packed box, as bits. */
  long[] someCell(long[] left) {
    long[] cell = new long[left.length];
    for (int axis = 0; axis < cuts.length; axis++) {
      int word = offset[axis];
      while (left[word] == 0) {
        word++;
      }
      cell[word] = Long.lowestOneBit(left[word]);
    }
    return cell;
  }

  /** A code of each axis in the first class of a packed box. */
  int[] somePoint(long[] left) {
    int[] out = new int[cuts.length];
    for (int axis = 0; axis < out.length; axis++) {
      int word = offset[axis];
      while (left[word] == 0) {
        word++;
      }
      out[axis] = code(axis, word, Long.numberOfTrailingZeros(left[word]));
    }
    return out;
  }

  private int code(int axis, int word, int bit) {
    return cuts[axis].codes[(word - offset[axis] << 6) + bit];
  }
}
