package dev.ironsieve.core.sets;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;

/**
 * An immutable set of addresses of both families as sorted, disjoint, coalesced ranges. Binary
 * operations are linear sweeps, O(n + m) in the number of ranges.
 */
public final class AddressSet {
  public static final AddressSet EMPTY = new AddressSet(List.of());
  public static final AddressSet ALL =
      new AddressSet(List.of(AddressRange.all(Family.IPV4), AddressRange.all(Family.IPV6)));

  private final List<AddressRange> ranges;
  private final boolean all; // addresses of both families

  private AddressSet(List<AddressRange> ranges) {
    this.ranges = ranges;
    all = ranges.size() == 2 && ranges.stream().allMatch(AddressSet::isWholeFamily);
  }

  private static boolean isWholeFamily(AddressRange range) {
    return range.equals(AddressRange.all(range.family()));
  }

  public static AddressSet of(AddressRange range) {
    return new AddressSet(List.of(range));
  }

  /** The union of {@code ranges}, which may overlap and stand in any order; O(n log n). */
  public static AddressSet of(Collection<AddressRange> ranges) {
    if (ranges.size() == 1) {
      return of(ranges.iterator().next());
    }
    List<AddressRange> sorted = new ArrayList<>(ranges);
    sorted.sort(null);
    List<AddressRange> out = new ArrayList<>();
    for (AddressRange range : sorted) {
      AddressRange before = out.isEmpty() ? null : out.getLast();
      if (before != null && touches(before, range)) {
        if (range.last().compareTo(before.last()) > 0) {
          out.set(out.size() - 1, new AddressRange(before.first(), range.last()));
        }
      } else {
        out.add(range);
      }
    }
    return out.isEmpty() ? EMPTY : new AddressSet(List.copyOf(out));
  }

  private static boolean touches(AddressRange before, AddressRange range) {
    if (before.family() != range.family()) {
      return false;
    }
    Address behind = before.last().next();
    return behind == null || range.first().compareTo(behind) <= 0;
  }

  /** Sorted, disjoint, with a gap between any two of a family. */
  public List<AddressRange> ranges() {
    return ranges;
  }

  public boolean isEmpty() {
    return ranges.isEmpty();
  }

  /** Whether this holds every address of both families. */
  public boolean isAll() {
    return all;
  }

  /** The number of addresses of a family; rounded above 2^53. */
  public double size(Family family) {
    double sum = 0;
    for (AddressRange range : ranges) {
      if (range.family() == family) {
        Address first = range.first();
        Address last = range.last();
        double high = unsigned(last.high()) - unsigned(first.high());
        sum += high * 0x1p64 + unsigned(last.low()) - unsigned(first.low()) + 1;
      }
    }
    return sum;
  }

  private static double unsigned(long bits) {
    return (bits >>> 1) * 2.0 + (bits & 1);
  }

  /** O(log ranges). */
  public boolean contains(Address address) {
    int low = 0;
    int high = ranges.size() - 1;
    while (low <= high) {
      int middle = (low + high) >>> 1;
      AddressRange range = ranges.get(middle);
      if (address.compareTo(range.first()) < 0) {
        high = middle - 1;
      } else if (address.compareTo(range.last()) > 0) {
        low = middle + 1;
      } else {
        return true;
      }
    }
    return false;
  }

  public boolean containsAll(AddressSet other) {
    return other.minus(this).isEmpty();
  }

  public AddressSet union(AddressSet other) {
    List<AddressRange> both = new ArrayList<>(ranges);
    both.addAll(other.ranges);
    return of(both);
  }

  public AddressSet intersect(AddressSet other) {
    List<AddressRange> out = new ArrayList<>();
    int i = 0;
    int j = 0;
    while (i < ranges.size() && j < other.ranges.size()) {
      AddressRange a = ranges.get(i);
      AddressRange b = other.ranges.get(j);
      Address first = a.first().compareTo(b.first()) >= 0 ? a.first() : b.first();
      Address last = a.last().compareTo(b.last()) <= 0 ? a.last() : b.last();
      if (first.compareTo(last) <= 0) {
        out.add(new AddressRange(first, last));
      }
      if (a.last().compareTo(b.last()) < 0) {
        i++;
      } else {
        j++;
      }
    }
    return out.isEmpty() ? EMPTY : new AddressSet(List.copyOf(out));
  }

  public AddressSet minus(AddressSet other) {
    List<AddressRange> out = new ArrayList<>();
    int j = 0;
    for (AddressRange range : ranges) {
      Address first = range.first();
      while (j < other.ranges.size() && other.ranges.get(j).last().compareTo(first) < 0) {
        j++;
      }
      for (int k = j; k < other.ranges.size() && first != null; k++) {
        AddressRange hole = other.ranges.get(k);
        if (hole.first().compareTo(range.last()) > 0) {
          break;
        }
        if (hole.first().compareTo(first) > 0) {
          out.add(new AddressRange(first, hole.first().previous()));
        }
        first = hole.last().compareTo(range.last()) < 0 ? hole.last().next() : null;
      }
      if (first != null) {
        out.add(new AddressRange(first, range.last()));
      }
    }
    return out.isEmpty() ? EMPTY : new AddressSet(List.copyOf(out));
  }

  @Override
  public boolean equals(Object o) {
    return o instanceof AddressSet other && ranges.equals(other.ranges);
  }

  @Override
  public int hashCode() {
    return ranges.hashCode();
  }

  @Override
  public String toString() {
    return ranges.toString();
  }
}
