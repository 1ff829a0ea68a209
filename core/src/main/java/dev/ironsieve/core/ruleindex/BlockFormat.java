package dev.ironsieve.core.ruleindex;

/**
 * The layout of a {@link Block} in one array, and access to its parts. One array, since a look-up
 * is bound by memory latency:
 *
 * <pre>
 *   data:    [ sizes | headers of axes | present | finders | boxes | rows | rows ... ]
 *   sizes:   words of a row | where headers end | boxes | a bit for each axis, where boxes begin
 *   header:  how a code's class is found | which classes there are | where finder and rows begin
 *   present: a bit for each box that was not removed
 *   boxes:   the number of each and where its record is, see {@link BoxRecords}, by position of
 *            their rules
 *   rows:    [ piece 0 | piece 1 | ... ]                                 as many words as present
 * </pre>
 *
 * The finder of an axis gives the piece of a code:
 *
 * <ul>
 *   <li>nothing: each class is a piece, if there are not many more classes than cuts;
 *   <li>marks: for 32 classes the number of cuts below them, and a bit for each that begins with a
 *       cut;
 *   <li>a list of all cuts, if they are few or lie inside of classes, which edits can split.
 * </ul>
 */
final class BlockFormat {
  static final int SIZES = 0; // words of a row
  static final int END = 8; // where headers end: places to shift
  static final int COUNT = 32; // boxes
  static final int BOXES = 1; // where they begin
  static final int ROWED = 32; // a bit for each axis with rows
  static final int SMALL = 0xff; // what has 8 places
  static final int HEADERS = 2; // where they begin

  // A header:
  static final int AXIS = 0; // factor | places to shift << 32 | axis << 40 | listed << 48
  static final int CLASSES = 1; // the first | how many are behind it, or cuts << 32
  static final int ROWS = 2; // where rows begin | where the finder begins, or 0 << 32
  static final int HEADER = 3;

  static final long LISTED = 1L << 48;
  static final long FACTOR = (1L << 31) - 1;

  /** A code has at most so many bits. */
  static final int BITS = 30;

  static final int NUMBER = 32; // of a box, behind where its record is

  /** The fewest axes that have rows; with fewer narrowed axes, unnarrowed ones get rows too. */
  static final int LEAST = 3;

  static final int END_OF_LEAST = HEADERS + LEAST * HEADER; // of their headers

  /** Classes for which one long has marks. */
  static final int MARKED = 32;

  private BlockFormat() {}

  /** The number of longs for so many bits. */
  static int longsOf(int bits) {
    return (bits + 63) >> 6;
  }

  static int words(long[] data) {
    return (int) data[SIZES] & SMALL;
  }

  /** Where the headers end, and the bits of the boxes that are present begin. */
  static int present(long[] data) {
    return (int) data[SIZES] >>> END;
  }

  /** Where a box stands. */
  static int at(long[] data, int place) {
    return (int) data[BOXES] + place;
  }

  /** The number of boxes. */
  static int size(long[] data) {
    return (int) (data[SIZES] >>> COUNT);
  }

  /** The number of a box by its place, from 0. */
  static int box(long[] data, int place) {
    return (int) (data[at(data, place)] >>> NUMBER);
  }

  /** A bit for each axis that has rows. */
  static int rowed(long[] data) {
    return (int) (data[BOXES] >>> ROWED);
  }

  /** Where the words of the point's piece begin. */
  static int row(long[] data, int header, int[] point, int words) {
    int code = point[axis(data[header + AXIS])];
    return (int) data[header + ROWS] + piece(data, header, code) * words;
  }

  static int axis(long header) {
    return (int) (header >>> 40) & 0xff;
  }

  /** The piece of an axis in which a code lies. */
  static int piece(long[] data, int header, int code) {
    long axis = data[header + AXIS];
    long classes = data[header + CLASSES];
    int finder = (int) (data[header + ROWS] >>> 32);
    if ((axis & LISTED) != 0) {
      return listed(data, finder, (int) (classes >>> 32), code);
    }
    int own = (int) ((axis & FACTOR) * code >>> (axis >>> 32)) - (int) classes; // by its low bits
    int behind = Math.min(own, (int) (classes >>> 32)); // codes behind the last are one class
    if (finder == 0) {
      return behind;
    }
    long marks = data[finder + behind / MARKED];
    return (int) (marks >>> MARKED) + Integer.bitCount((int) marks & (2 << behind) - 1);
  }

  /** The number of cuts that are not above a code. */
  private static int listed(long[] data, int cuts, int count, int code) {
    int low = 0;
    int high = count;
    while (low < high) {
      int middle = (low + high) >>> 1;
      if ((int) (data[cuts + (middle >> 1)] >>> (middle << 5)) <= code) {
        low = middle + 1;
      } else {
        high = middle;
      }
    }
    return low;
  }
}
