package dev.ironsieve.core.cover;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/**
 * One axis of a cover question, reduced to the distinctions that matter: codes of the target's side
 * that the same candidates hold form one class, so that a side becomes a few bits. Classes are
 * compared by their sets, not by hashes.
 *
 * <p>More candidates split the classes further; earlier results stay valid.
 */
final class Cut {
  /** With more partial sides, one is looked for by hash. */
  private static final int FEW = 16;

  /** Room for so many classes, to begin with. */
  private static final int ROOM = 16;

  /** Some code of each class. */
  final int[] codes;

  /** 64-bit words that one side takes. */
  final int words;

  private final IntSet all;
  private final int[] starts; // of pieces, which are ranges of codes
  private final int[] classOf; // by piece
  private final List<IntSet> partial; // sides that do not hold all of the target's, each once
  private final int[] partialOf; // by candidate: which partial side it has, or -1 for all
  private final long[][] packed; // by partial side: the classes that it has
  private final long[] full;

  /** No candidates: all is one class. */
  Cut(IntSet all) {
    this.all = all;
    codes = new int[] {all.min()};
    starts = new int[all.intervals()];
    Arrays.setAll(starts, all::first);
    classOf = new int[starts.length];
    partial = List.of();
    partialOf = new int[0];
    words = 1;
    full = new long[] {1};
    packed = new long[0][];
  }

  /** The same classes, which are all that some more candidates tell apart. */
  private Cut(Cut known, int[] partialOf) {
    all = known.all;
    codes = known.codes;
    starts = known.starts;
    classOf = known.classOf;
    partial = known.partial;
    this.partialOf = partialOf;
    words = known.words;
    full = known.full;
    packed = known.packed;
  }

  /** Finer classes. */
  private Cut(Cut known, int[] partialOf, List<IntSet> partial) {
    all = known.all;
    this.partialOf = partialOf;
    this.partial = partial;
    Classes classes = known.new Classes(partial.subList(known.partial.size(), partial.size()));
    starts = classes.starts;
    classOf = classes.classOf;
    codes = classes.codes();
    words = (codes.length + 63) >> 6;
    full = new long[words];
    packed = new long[partial.size()][words];
    for (int c = 0; c < codes.length; c++) {
      full[c >> 6] |= 1L << c;
      classes.addTo(packed, c);
    }
  }

  /**
   * With more candidates; O(pieces + bounds · log bounds + classes · partial sides), where the
   * bounds are those of the new sides inside the target.
   *
   * @param candidates those before, and behind them the new ones
   */
  Cut with(int axis, List<Box> candidates) {
    int[] of = Arrays.copyOf(partialOf, candidates.size());
    List<IntSet> sides = partial;
    Map<IntSet, Integer> places = null; // of the sides
    for (int i = partialOf.length; i < of.length; i++) {
      IntSet side = candidates.get(i).side(axis);
      of[i] = -1;
      if (side == all || side.containsAll(all)) {
        continue;
      }
      if (places == null && sides.size() > FEW) {
        places = places(sides);
      }
      of[i] = places == null ? place(sides, side) : places.getOrDefault(side, -1);
      if (of[i] < 0) {
        of[i] = sides.size();
        sides = sides == partial ? new ArrayList<>(partial) : sides;
        sides.add(side);
        if (places != null) {
          places.put(side, of[i]);
        }
      }
    }
    return sides == partial ? new Cut(this, of) : new Cut(this, of, sides);
  }

  private static Map<IntSet, Integer> places(List<IntSet> sides) {
    Map<IntSet, Integer> places = new IdentityHashMap<>();
    for (IntSet side : sides) {
      places.put(side, places.size());
    }
    return places;
  }

  private static int place(List<IntSet> sides, IntSet side) {
    for (int i = 0; i < sides.size(); i++) {
      if (sides.get(i) == side) {
        return i;
      }
    }
    return -1;
  }

  /**
   * Cuts the classes further by going over the pieces once, from one bound to the next, with a bit
   * for each new side that holds what is behind it. Pieces of the same class that have the same
   * bits are one class.
   */
  private final class Classes {
    private static final int ID = 24; // bits of an event that say whose bound it is

    private final int words; // of a row
    private final long[] events; // a code, and which side begins there or ends before it
    private int eventCount;
    private int[] starts;
    private int[] classOf;
    private int count; // of classes
    private long[] rows; // by class: what it was before, and bits of the new sides
    private int[] first; // by class, the code where its first piece begins
    private int[] table; // by hash: one more than a class, or 0; a quarter is in use at most

    Classes(List<IntSet> fresh) {
      words = 1 + ((fresh.size() + 63) >> 6);
      events = new long[eventsAtMost(fresh)];
      for (int i = 0; i < fresh.size(); i++) {
        addEvents(fresh.get(i), i);
      }
      Arrays.sort(events, 0, eventCount);
      int most = Cut.this.starts.length + eventCount; // pieces
      first = new int[ROOM];
      rows = new long[ROOM * words];
      table = new int[ROOM * 4];
      starts = new int[most];
      classOf = new int[most];
      int pieces = goOver();
      starts = Arrays.copyOf(starts, pieces);
      classOf = Arrays.copyOf(classOf, pieces);
    }

    private int eventsAtMost(List<IntSet> fresh) {
      int most = 0;
      for (IntSet side : fresh) {
        most += 2 * (side.interval(all.max()) - side.interval(all.min()) + 1);
      }
      return most;
    }

    private void addEvents(IntSet side, int id) {
      int low = all.min();
      int high = all.max();
      for (int i = side.interval(low); i < side.intervals() && side.first(i) <= high; i++) {
        events[eventCount++] = (long) Math.max(low, side.first(i)) << ID | id;
        if (side.last(i) < high) {
          events[eventCount++] = side.last(i) + 1L << ID | id;
        }
      }
    }

    /** Notes the pieces; how many there are. */
    private int goOver() {
      int[] before = Cut.this.starts;
      long[] row = new long[words];
      int pieces = 0;
      int at = 0;
      int interval = 0; // of all
      for (int piece = 0; piece < before.length; piece++) {
        int code = before[piece];
        while (all.last(interval) < code) {
          interval++;
        }
        int last = all.last(interval);
        if (piece + 1 < before.length) {
          last = Math.min(last, before[piece + 1] - 1);
        }
        row[0] = Cut.this.classOf[piece];
        at = turn(row, at, code);
        while (true) {
          starts[pieces] = code;
          classOf[pieces++] = classOf(row, code);
          if (at == eventCount || events[at] >>> ID > last) {
            break;
          }
          code = (int) (events[at] >>> ID);
          at = turn(row, at, code);
        }
      }
      return pieces;
    }

    /** Applies the events up to a code to the row; returns the index of the next. */
    private int turn(long[] row, int from, int code) {
      int at = from;
      for (; at < eventCount && events[at] >>> ID <= code; at++) {
        int id = (int) events[at] & (1 << ID) - 1;
        row[1 + (id >> 6)] ^= 1L << id;
      }
      return at;
    }

    /** The class of a piece, which is a new one if none has its row. */
    private int classOf(long[] row, int code) {
      int at = hash(row, 0);
      while (table[at] > 0) {
        int from = (table[at] - 1) * words;
        if (Arrays.equals(rows, from, from + words, row, 0, words)) {
          return table[at] - 1;
        }
        at = at + 1 & table.length - 1;
      }
      if (count == first.length) {
        grow();
        at = free(hash(row, 0));
      }
      first[count] = code;
      System.arraycopy(row, 0, rows, count * words, words);
      table[at] = ++count;
      return count - 1;
    }

    /** Where a class with a row is looked for first. */
    private int hash(long[] from, int at) {
      long hash = 0;
      for (int word = 0; word < words; word++) {
        hash = (hash ^ from[at + word]) * 0x9E37_79B9_7F4A_7C15L;
      }
      return (int) (hash >>> 32) & table.length - 1;
    }

    private int free(int from) {
      int at = from;
      while (table[at] > 0) {
        at = at + 1 & table.length - 1;
      }
      return at;
    }

    private void grow() {
      first = Arrays.copyOf(first, count * 2);
      rows = Arrays.copyOf(rows, rows.length * 2);
      table = new int[table.length * 2];
      for (int known = 0; known < count; known++) {
        table[free(hash(rows, known * words))] = known + 1;
      }
    }

    int[] codes() {
      return Arrays.copyOf(first, count);
    }

    /** Sets the bit of a class for each partial side that has it. */
    void addTo(long[][] sides, int c) {
      long bit = 1L << c;
      int was = (int) rows[c * words];
      for (int side = 0; side < partial.size(); side++) {
        sides[side][c >> 6] |= (packed[side][was >> 6] >> was & 1) == 0 ? 0 : bit;
      }
      for (int word = 1; word < words; word++) {
        for (long left = rows[c * words + word]; left != 0; left &= left - 1) {
          int fresh = (word - 1 << 6) + Long.numberOfTrailingZeros(left);
          sides[partial.size() + fresh][c >> 6] |= bit;
        }
      }
    }
  }

  /** The codes of the classes whose bits are set from word {@code offset} of {@code packed} on. */
  IntSet side(long[] packed, int offset) {
    if (partial.isEmpty()) {
      return packed[offset] == 0 ? IntSet.EMPTY : all;
    }
    IntSet.Builder out = new IntSet.Builder();
    int interval = 0;
    for (int piece = 0; piece < starts.length; piece++) {
      while (all.last(interval) < starts[piece]) {
        interval++;
      }
      int last = all.last(interval);
      if (piece + 1 < starts.length) {
        last = Math.min(last, starts[piece + 1] - 1);
      }
      int c = classOf[piece];
      if ((packed[offset + (c >> 6)] >> c & 1) != 0) {
        out.addInOrder(starts[piece], last);
      }
    }
    IntSet side = out.build();
    return side.equals(all) ? all : side;
  }

  /** The classes of the target's side. */
  long[] full() {
    return full;
  }

  /** The classes of a candidate's side that are in the target's. */
  long[] bits(int candidate) {
    int side = partialOf[candidate];
    return side < 0 ? full : packed[side];
  }
}
