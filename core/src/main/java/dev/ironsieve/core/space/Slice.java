package dev.ironsieve.core.space;

import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.Family;
import java.util.Arrays;
import java.util.List;

/**
 * The addresses of one family in one zone, as runs in ascending order, each of which is a class of
 * an {@link EndpointAxis}.
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
  /** By how much the keys of neighbours differ. */
  private static final long IPV4 = 1L << 32;

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

  /** Number of runs. */
  int runs() {
    return runs;
  }

  /**
   * Adds a run behind all others; {@link #index()} follows the last.
   *
   * @param key and {@code rest} are the first address
   * @param lastKey and {@code lastRest} the last
   */
  void add(long key, long rest, long lastKey, long lastRest) {
    put(2 * runs, key, rest);
    put(2 * runs + 1, lastKey, lastRest);
    runs++;
  }

  private void put(int place, long key, long rest) {
    keys[place] = key;
    rests[place] = rest;
  }

  static long key(Address address) {
    return address.family() == Family.IPV4 ? address.low() << 32 : address.high();
  }

  static long rest(Address address) {
    return address.family() == Family.IPV4 ? 0 : address.low();
  }

  /** The rest of the address behind one with this rest. */
  static long restBehind(Family family, long rest) {
    return family == Family.IPV4 ? 0 : rest + 1;
  }

  /**
   * The key of the address behind one; all of that is 0 behind the last of a family.
   *
   * @param restBehind the rest of the address behind
   */
  static long keyBehind(Family family, long key, long restBehind) {
    return family == Family.IPV4 ? key + IPV4 : restBehind == 0 ? key + 1 : key;
  }

  /** The rest of the address before one with this rest. */
  static long restBefore(Family family, long rest) {
    return family == Family.IPV4 ? 0 : rest - 1;
  }

  /** The key of the address before one, which is not the lowest. */
  static long keyBefore(Family family, long key, long rest) {
    return family == Family.IPV4 ? key - IPV4 : rest == 0 ? key - 1 : key;
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
    return at(key(address), rest(address));
  }

  /** The same of an address by its key and its rest. */
  int at(long key, long rest) {
    if (Long.compareUnsigned(key, base) < 0) {
      return -1;
    }
    int stretch = stretch(key);
    int from = runsBefore[stretch];
    int to = runsBefore[stretch + 1] - 1;
    while (from <= to) {
      int middle = (from + to) >>> 1;
      if (compare(2 * middle, key, rest) <= 0) {
        from = middle + 1;
      } else {
        to = middle - 1;
      }
    }
    return to;
  }

  private int compare(int place, long key, long rest) {
    int byKey = Long.compareUnsigned(keys[place], key);
    return byKey != 0 ? byKey : Long.compareUnsigned(rests[place], rest);
  }

  private int compare(int place, Address address) {
    return compare(place, key(address), rest(address));
  }

  /** The first run that begins at or behind the beginning of a range. */
  int from(Ranges ranges, int range) {
    long key = ranges.key(range, Ranges.FIRST);
    long rest = ranges.rest(range, Ranges.FIRST);
    int run = at(key, rest);
    return run >= 0 && compare(2 * run, key, rest) == 0 ? run : run + 1;
  }

  /** The first run that begins behind the end of a range. */
  int behind(Ranges ranges, int range) {
    return at(ranges.key(range, Ranges.LAST), ranges.rest(range, Ranges.LAST)) + 1;
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
      if (run + 1 == to || !continues(run + 1)) {
        out.add(new AddressRange(first(begin), last(run)));
        begin = run + 1;
      }
    }
  }

  /** Whether a run, not the first, follows the one before it without a gap. */
  boolean continues(int run) {
    int place = 2 * run;
    long rest = restBehind(family, rests[place - 1]);
    return rests[place] == rest && keys[place] == keyBehind(family, keys[place - 1], rest);
  }

  boolean beginsAt(int run, Address address) {
    return compare(2 * run, address) == 0;
  }

  /** Whether the run, which does not begin behind the address, ends before it. */
  boolean endsBefore(int run, Address address) {
    return compare(2 * run + 1, address) < 0;
  }

  /** Whether a range of the family lies below all runs or above them; quicker than a search. */
  boolean isBeside(Ranges ranges, int range) {
    return runs == 0
        || compare(0, ranges.key(range, Ranges.LAST), ranges.rest(range, Ranges.LAST)) > 0
        || compare(2 * runs - 1, ranges.key(range, Ranges.FIRST), ranges.rest(range, Ranges.FIRST))
            < 0;
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
    put(behind, key(previous), rest(previous));
    put(behind + 1, key(address), rest(address));
    runs++;
    for (int i = stretch(keys[behind + 1]) + 1; i < runsBefore.length; i++) {
      runsBefore[i]++;
    }
  }
}
