package dev.ironsieve.core.space;

import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.Family;
import java.util.Arrays;
import java.util.List;

/**
 * The addresses of one family in one zone, as runs in ascending order, each of which is a class of
 * an {@link EndpointLine}.
 *
 * <p>Every connection is searched for here, so this reads little memory. An address is a key, its
 * first 64 bits, and the rest, which is looked at only where keys are alike; the 32 bits of IPv4
 * stand at the upper end of the key. Stretches of equal width tell which runs begin in them:
 *
 * <pre>
 *   runs        0      1  2    3            4
 *               [......[..[....[............[......
 *   stretches   |       |       |       |       |
 *   runs before 0       2       4       4       5     an address in the second: runs 1 to 3
 * </pre>
 */
final class Slice {
  final Family family;

  /** Place among the slices of a line. */
  final int number;

  /** Classes of all slices before this one. */
  int before;

  private int runs;
  private long[] keys; // of the first and the last address of each run, unsigned
  private long[] rests; // of the same
  private long base; // the first key of all
  private int shift; // all bits of a key but those that tell its stretch
  private int[] runsBefore = new int[2]; // by stretch, and behind the last

  /**
   * @param capacity number of runs that will be added
   */
  Slice(Family family, int number, int capacity) {
    this.family = family;
    this.number = number;
    keys = new long[2 * capacity];
    rests = new long[2 * capacity];
  }

  /** The same runs, to be cut on their own. */
  Slice(Slice other) {
    family = other.family;
    number = other.number;
    before = other.before;
    runs = other.runs;
    keys = other.keys.clone();
    rests = other.rests.clone();
    index();
  }

  /** Number of runs. */
  int runs() {
    return runs;
  }

  /**
   * Adds a run behind all others; {@link #index()} follows the last.
   *
   * @param fromHigh and the next are the first address, {@code toHigh} and {@code toLow} the last
   */
  void add(long fromHigh, long fromLow, long toHigh, long toLow) {
    put(2 * runs, fromHigh, fromLow);
    put(2 * runs + 1, toHigh, toLow);
    runs++;
  }

  private void put(int place, long high, long low) {
    keys[place] = key(high, low);
    rests[place] = rest(low);
  }

  private long key(long high, long low) {
    return family == Family.IPV4 ? low << 32 : high;
  }

  private long rest(long low) {
    return family == Family.IPV4 ? 0 : low;
  }

  private Address address(int place) {
    return family == Family.IPV4
        ? new Address(family, 0, keys[place] >>> 32)
        : new Address(family, keys[place], rests[place]);
  }

  /** Makes the runs that were added known to {@link #at}; at most two stretches for each run. */
  void index() {
    if (runs == 0) {
      return;
    }
    base = keys[0];
    long width = keys[2 * runs - 2] - base;
    shift = Math.max(0, bits(width) - bits(runs));
    runsBefore = new int[(int) (width >>> shift) + 2];
    for (int run = 0; run < runs; run++) {
      runsBefore[stretch(keys[2 * run]) + 1]++;
    }
    for (int stretch = 1; stretch < runsBefore.length; stretch++) {
      runsBefore[stretch] += runsBefore[stretch - 1];
    }
  }

  private static int bits(long number) {
    return Long.SIZE - Long.numberOfLeadingZeros(number);
  }

  /** The stretch of a key from the first on. */
  private int stretch(long key) {
    long stretch = (key - base) >>> shift;
    int last = runsBefore.length - 2;
    return stretch >= 0 && stretch < last ? (int) stretch : last;
  }

  /** The last run that begins at or before {@code address}, or -1. */
  int at(Address address) {
    long key = key(address.high(), address.low());
    if (Long.compareUnsigned(key, base) < 0) {
      return -1;
    }
    int stretch = stretch(key);
    int from = runsBefore[stretch];
    int to = runsBefore[stretch + 1] - 1;
    while (from <= to) {
      int middle = (from + to) >>> 1;
      if (compare(2 * middle, key, address) <= 0) {
        from = middle + 1;
      } else {
        to = middle - 1;
      }
    }
    return to;
  }

  private int compare(int place, long key, Address address) {
    int byKey = Long.compareUnsigned(keys[place], key);
    return byKey != 0 ? byKey : Long.compareUnsigned(rests[place], rest(address.low()));
  }

  private int compare(int place, Address address) {
    return compare(place, key(address.high(), address.low()), address);
  }

  Address first(int run) {
    return address(2 * run);
  }

  Address last(int run) {
    return address(2 * run + 1);
  }

  /** Adds the addresses of the runs from {@code from}, included, to {@code to}, not included. */
  void addRanges(List<AddressRange> out, int from, int to) {
    int begin = from;
    for (int run = from; run < to; run++) {
      if (run + 1 == to || !isNext(2 * run + 2)) {
        out.add(new AddressRange(first(begin), last(run)));
        begin = run + 1;
      }
    }
  }

  /** Whether the address at {@code place} follows the one before it without a gap. */
  private boolean isNext(int place) {
    if (family == Family.IPV4) {
      return keys[place] == keys[place - 1] + (1L << 32);
    }
    long rest = rests[place - 1] + 1;
    return rests[place] == rest && keys[place] == keys[place - 1] + (rest == 0 ? 1 : 0);
  }

  boolean beginsAt(int run, Address address) {
    return compare(2 * run, address) == 0;
  }

  /** Whether the run, which does not begin behind the address, ends before it. */
  boolean endsBefore(int run, Address address) {
    return compare(2 * run + 1, address) < 0;
  }

  /** Whether a range of the family lies below all runs or above them; quicker than a search. */
  boolean isBeside(AddressRange range) {
    return runs == 0 || compare(0, range.last()) > 0 || compare(2 * runs - 1, range.first()) < 0;
  }

  /** Cuts a run in two; the second begins at {@code address}, which is not the first of the run. */
  void cut(int run, Address address) {
    if (2 * runs == keys.length) {
      int capacity = 2 * (runs * 3 / 2 + 8);
      keys = Arrays.copyOf(keys, capacity);
      rests = Arrays.copyOf(rests, capacity);
    }
    Address previous = address.previous();
    int behind = 2 * run + 1;
    for (long[] words : new long[][] {keys, rests}) {
      System.arraycopy(words, behind, words, behind + 2, 2 * runs - behind);
    }
    put(behind, previous.high(), previous.low());
    put(behind + 1, address.high(), address.low());
    runs++;
    for (int i = stretch(keys[behind + 1]) + 1; i < runsBefore.length; i++) {
      runsBefore[i]++;
    }
  }
}
