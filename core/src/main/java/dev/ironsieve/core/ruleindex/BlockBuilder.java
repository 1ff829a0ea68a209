package dev.ironsieve.core.ruleindex;

import static dev.ironsieve.core.ruleindex.BlockFormat.AXIS;
import static dev.ironsieve.core.ruleindex.BlockFormat.BITS;
import static dev.ironsieve.core.ruleindex.BlockFormat.BOXES;
import static dev.ironsieve.core.ruleindex.BlockFormat.CLASSES;
import static dev.ironsieve.core.ruleindex.BlockFormat.COUNT;
import static dev.ironsieve.core.ruleindex.BlockFormat.END;
import static dev.ironsieve.core.ruleindex.BlockFormat.HEADER;
import static dev.ironsieve.core.ruleindex.BlockFormat.HEADERS;
import static dev.ironsieve.core.ruleindex.BlockFormat.LEAST;
import static dev.ironsieve.core.ruleindex.BlockFormat.LISTED;
import static dev.ironsieve.core.ruleindex.BlockFormat.MARKED;
import static dev.ironsieve.core.ruleindex.BlockFormat.NUMBER;
import static dev.ironsieve.core.ruleindex.BlockFormat.ROWED;
import static dev.ironsieve.core.ruleindex.BlockFormat.ROWS;
import static dev.ironsieve.core.ruleindex.BlockFormat.SIZES;
import static dev.ironsieve.core.ruleindex.BlockFormat.axis;
import static dev.ironsieve.core.ruleindex.BlockFormat.longsOf;
import static dev.ironsieve.core.ruleindex.BlockFormat.piece;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.Arrays;
import java.util.List;

/** Lays the boxes of a {@link Block} out in one array. */
final class BlockBuilder {
  /** An axis has no finder if there are at most this many classes for each cut. */
  private static final int MOST_CLASSES = 3;

  /** It has marks if they take at most so many longs for each cut. */
  private static final int MOST_MARKS = 4;

  private final Box[] all;
  private final Block.Axis[] axes;
  private final int words;
  private final long[] data;

  /**
   * @param numbers of the boxes, by position of their rules
   * @param all the boxes
   * @param records of these boxes and others
   * @param axes by number
   * @param worth see {@link SelectiveAxes#chosen}
   */
  static long[] build(int[] numbers, Box[] all, BoxRecords records, Block.Axis[] axes, int worth) {
    return new BlockBuilder(numbers, all, records, axes, worth).data;
  }

  private BlockBuilder(int[] numbers, Box[] all, BoxRecords records, Block.Axis[] axes, int worth) {
    this.all = all;
    this.axes = axes;
    words = longsOf(all.length);
    List<SelectiveAxes.Rowed> chosen = new SelectiveAxes(all, axes).chosen(worth);
    int present = HEADERS + Math.max(LEAST, chosen.size()) * HEADER;
    int own = present + words; // where boxes begin
    Pieces[] pieces = new Pieces[chosen.size()];
    int sum = 0; // longs of all rows
    int rowed = 0;
    for (int i = 0; i < pieces.length; i++) {
      int axis = chosen.get(i).axis();
      pieces[i] = new Pieces(axes[axis], chosen.get(i).cuts());
      own += pieces[i].longs;
      sum += pieces[i].count() * words;
      rowed |= 1 << axis;
    }
    int rows = own + all.length;
    data = new long[rows + sum];
    data[SIZES] = words | present << END | (long) all.length << COUNT;
    data[BOXES] = own | (long) rowed << ROWED;
    for (int box = 0; box < all.length; box++) {
      data[present + (box >> 6)] |= 1L << box;
      data[own + box] = (long) numbers[box] << NUMBER | records.start(numbers[box]);
    }
    int finder = present + words;
    for (int i = 0; i < pieces.length; i++) {
      int header = HEADERS + i * HEADER;
      lay(header, chosen.get(i).axis(), pieces[i], finder, rows);
      fillRows(header, pieces[i].count());
      rows += pieces[i].count() * words;
      finder += pieces[i].longs;
    }
    for (int i = pieces.length; i < LEAST; i++) {
      data[HEADERS + i * HEADER + ROWS] = present;
    }
  }

  private void setInt(int from, int i, int value) {
    data[from + (i >> 1)] |= (long) value << (i << 5);
  }

  /**
   * Lays out an axis but for its bits.
   *
   * @param header where it is
   * @param at where the finder begins
   * @param rows where its rows begin
   */
  private void lay(int header, int number, Pieces pieces, int at, int rows) {
    // Division by a constant (Granlund, Montgomery: Division by Invariant Integers using
    // Multiplication, PLDI 1994), exact for codes of so many bits.
    int places = BITS + 32 - Integer.numberOfLeadingZeros(pieces.axis.step() - 1);
    long factor = ((1L << places) + pieces.axis.step() - 1) / pieces.axis.step();
    int behind = pieces.listed ? pieces.cuts.length : pieces.classes;
    data[header + AXIS] =
        factor | (long) places << 32 | (long) number << 40 | (pieces.listed ? LISTED : 0);
    data[header + CLASSES] = pieces.base | (long) behind << 32;
    data[header + ROWS] = rows | (pieces.each ? 0 : (long) at << 32);
    if (pieces.listed) {
      for (int i = 0; i < pieces.cuts.length; i++) {
        setInt(at, i, pieces.cuts[i]);
      }
    } else if (!pieces.each) {
      mark(pieces, at);
    }
  }

  private void mark(Pieces pieces, int at) {
    for (int cut : pieces.cuts) {
      int mark = cut / pieces.axis.step() - pieces.base;
      data[at + mark / MARKED] |= 1L << mark % MARKED;
    }
    int below = 0;
    for (int i = 0; i < pieces.longs; i++) {
      int own = Long.bitCount(data[at + i]);
      data[at + i] |= (long) below << MARKED;
      below += own;
    }
  }

  /** Sets the rows of an axis, whose header and finder are there. */
  private void fillRows(int header, int pieces) {
    int number = axis(data[header + AXIS]);
    int rows = (int) data[header + ROWS];
    Block.Axis axis = axes[number];
    int low = axis.range().min();
    int high = axis.range().max();
    // The bit changes where a side begins and behind its end; summed up, it is set in between.
    for (int box = 0; box < all.length; box++) {
      IntSet side = all[box].side(number);
      int word = rows + (box >> 6);
      long bit = 1L << box;
      if (side == axis.whole()) {
        data[word] ^= bit;
        continue;
      }
      for (int i = side.interval(low); i < side.intervals() && side.first(i) <= high; i++) {
        data[word + piece(data, header, Math.max(side.first(i), low)) * words] ^= bit;
        int behind = piece(data, header, Math.min(side.last(i), high)) + 1;
        if (behind < pieces) {
          data[word + behind * words] ^= bit;
        }
      }
    }
    for (int at = rows + words; at < rows + pieces * words; at++) {
      data[at] ^= data[at - words];
    }
  }

  /** The pieces of an axis, and how they are found. */
  private static final class Pieces {
    private final Block.Axis axis;
    private final int[] cuts;
    private final int base; // the lowest class
    private final int classes; // behind it
    private final boolean listed;
    private final boolean each; // whether each class is a piece
    private final int longs; // that the finder takes

    Pieces(Block.Axis axis, int[] cuts) {
      this.axis = axis;
      this.cuts = cuts;
      base = axis.range().min() / axis.step();
      classes = Math.min(axis.range().max(), axis.whole().max() + 1) / axis.step() - base;
      int marks = classes / MARKED + 1;
      boolean split = Arrays.stream(cuts).anyMatch(cut -> cut % axis.step() != 0);
      each = !split && classes <= MOST_CLASSES * cuts.length;
      listed = !each && (split || marks > MOST_MARKS * cuts.length);
      longs = each ? 0 : listed ? (cuts.length + 1) / 2 : marks;
    }

    int count() {
      return 1 + (each ? classes : cuts.length);
    }
  }
}
