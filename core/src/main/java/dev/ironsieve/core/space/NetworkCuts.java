package dev.ironsieve.core.space;

import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.Family;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;

/** Where the networks of a zone are cut: where some ranges begin, and behind where they end. */
final class NetworkCuts {
  private static final Comparator<long[]> UNSIGNED =
      (a, b) -> {
        int byKey = Long.compareUnsigned(a[0], b[0]);
        return byKey != 0 ? byKey : Long.compareUnsigned(a[1], b[1]);
      };

  private final Family family;
  private final List<AddressRange> networks;
  private long[] keys = new long[16]; // see Slice
  private long[] rests = new long[16];
  private int count;
  private boolean rested; // whether a rest is not 0

  /**
   * @param networks of one family, ascending
   */
  NetworkCuts(Family family, List<AddressRange> networks) {
    this.family = family;
    this.networks = networks;
  }

  /**
   * NetworkCuts for a range, which may lie anywhere; one that lies beside the networks does not
   * count.
   */
  void add(Ranges ranges, int range) {
    long first = ranges.key(range, Ranges.FIRST);
    long last = ranges.key(range, Ranges.LAST);
    if (networks.isEmpty()
        || Long.compareUnsigned(last, Slice.key(networks.getFirst().first())) < 0
        || Long.compareUnsigned(first, Slice.key(networks.getLast().last())) > 0) {
      return;
    }
    put(first, ranges.rest(range, Ranges.FIRST));
    long rest = Slice.restBehind(family, ranges.rest(range, Ranges.LAST));
    long key = Slice.keyBehind(family, last, rest);
    if (key != 0 || rest != 0) { // else nothing is behind
      put(key, rest);
    }
  }

  private void put(long key, long rest) {
    if (count == keys.length) {
      keys = Arrays.copyOf(keys, 2 * count);
      rests = Arrays.copyOf(rests, 2 * count);
    }
    keys[count] = key;
    rests[count++] = rest;
    rested |= rest != 0;
  }

  /**
   * The networks as they are cut.
   *
   * @param number of the slice
   */
  Slice slice(int number) {
    sort();
    Slice slice = new Slice(family, number, count + networks.size());
    int at = 0;
    for (AddressRange network : networks) {
      long key = Slice.key(network.first());
      long rest = Slice.rest(network.first());
      long lastKey = Slice.key(network.last());
      long lastRest = Slice.rest(network.last());
      while (at < count && compare(at, key, rest) <= 0) {
        at++;
      }
      for (; at < count && compare(at, lastKey, lastRest) <= 0; at++) {
        if (keys[at] != key || rests[at] != rest) {
          slice.add(
              key,
              rest,
              Slice.keyBefore(family, keys[at], rests[at]),
              Slice.restBefore(family, rests[at]));
          key = keys[at];
          rest = rests[at];
        }
      }
      slice.add(key, rest, lastKey, lastRest);
    }
    slice.index();
    return slice;
  }

  private int compare(int cut, long key, long rest) {
    int byKey = Long.compareUnsigned(keys[cut], key);
    return byKey != 0 ? byKey : Long.compareUnsigned(rests[cut], rest);
  }

  private void sort() {
    if (rested) {
      long[][] pairs = new long[count][];
      Arrays.setAll(pairs, i -> new long[] {keys[i], rests[i]});
      Arrays.sort(pairs, UNSIGNED);
      for (int i = 0; i < count; i++) {
        keys[i] = pairs[i][0];
        rests[i] = pairs[i][1];
      }
      return;
    }
    flip();
    Arrays.sort(keys, 0, count);
    flip();
  }

  /** Exchanges the order of signed and of unsigned numbers. */
  private void flip() {
    for (int i = 0; i < count; i++) {
      keys[i] ^= Long.MIN_VALUE;
    }
  }
}
