package dev.ironsieve.core.space;

import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.Family;
import java.util.Arrays;
import java.util.Collection;

/**
 * The ranges of one family in some sets of addresses, as keys and rests, see {@link Slice}. All
 * stand in one array, set by set, since laying out reads them more than once:
 *
 * <pre>
 *   bounds:  [ first key, first rest, last key, last rest | ... ]
 * </pre>
 */
final class Ranges {
  static final int FIRST = 0; // and the rest behind the key
  static final int LAST = 2;

  private static final int EACH = 4;

  final Family family;
  private final int[] ends; // by set, behind its last range
  private long[] bounds;

  /**
   * @param sets are meant by their numbers from 0
   */
  Ranges(Family family, Collection<AddressSet> sets) {
    this.family = family;
    ends = new int[sets.size()];
    bounds = new long[2 * EACH * sets.size()];
    int set = 0;
    int count = 0;
    for (AddressSet addresses : sets) {
      for (AddressRange range : addresses.ranges()) {
        if (range.family() == family) {
          bounds = count == bounds.length ? Arrays.copyOf(bounds, 2 * count) : bounds;
          bounds[count] = Slice.key(range.first());
          bounds[count + 1] = Slice.rest(range.first());
          bounds[count + LAST] = Slice.key(range.last());
          bounds[count + LAST + 1] = Slice.rest(range.last());
          count += EACH;
        }
      }
      ends[set++] = count;
    }
  }

  /** Where the first range of a set is, which is {@link #end} if it has none. */
  int begin(int set) {
    return set == 0 ? 0 : ends[set - 1];
  }

  /** Behind the last range of a set. */
  int end(int set) {
    return ends[set];
  }

  /** Where the next range is. */
  int next(int range) {
    return range + EACH;
  }

  /**
   * @param bound {@link #FIRST} or {@link #LAST}
   */
  long key(int range, int bound) {
    return bounds[range + bound];
  }

  /**
   * @param bound {@link #FIRST} or {@link #LAST}
   */
  long rest(int range, int bound) {
    return bounds[range + bound + 1];
  }
}
