package dev.ironsieve.core.sets;

import java.util.Arrays;
import java.util.NoSuchElementException;
import java.util.function.IntConsumer;

/**
 * An immutable set of non-negative {@code int}s as sorted, disjoint, coalesced intervals.
 *
 * <p>Neighbouring integers are coalesced too, so equal sets have equal layouts:
 *
 * <pre>
 *   bounds:  [ first0, last0, first1, last1, ... ]     last(i) + 1 &lt; first(i+1)
 * </pre>
 *
 * Binary operations are linear sweeps, O(n + m) in the number of intervals.
 */
public final class IntSet {
  public static final IntSet EMPTY = new IntSet(new int[0]);

  /** From how many times as many intervals on it is quicker to look them up one by one. */
  private static final int SKEW = 8;

  private final int[] bounds;
  private int hash; // 0 until first asked for
  private int size; // the same; all fit, since the largest value is not a member

  private IntSet(int[] bounds) {
    this.bounds = bounds;
  }

  /** The integers from {@code first} to {@code last}, both included. */
  public static IntSet range(int first, int last) {
    if (first < 0 || last < first || last == Integer.MAX_VALUE) {
      throw new IllegalArgumentException("not an interval: " + first + ".." + last);
    }
    return new IntSet(new int[] {first, last});
  }

  public static IntSet of(int value) {
    return range(value, value);
  }

  /** Of some values in any order, which the caller gives away; O(values · log values). */
  public static IntSet of(int[] values) {
    int[] distinct = Ints.distinct(values, values.length);
    Builder out = new Builder();
    for (int value : distinct) {
      out.addInOrder(value, value);
    }
    return out.build();
  }

  public boolean isEmpty() {
    return bounds.length == 0;
  }

  /** Number of intervals. */
  public int intervals() {
    return bounds.length / 2;
  }

  /** First value of interval {@code i}, counted from 0. */
  public int first(int i) {
    return bounds[2 * i];
  }

  /** Last value of interval {@code i}, counted from 0. */
  public int last(int i) {
    return bounds[2 * i + 1];
  }

  public int min() {
    if (isEmpty()) {
      throw new NoSuchElementException("the empty set has no minimum");
    }
    return bounds[0];
  }

  public int max() {
    if (isEmpty()) {
      throw new NoSuchElementException("the empty set has no maximum");
    }
    return bounds[bounds.length - 1];
  }

  /** Number of members; O(intervals) when first asked for, then O(1). */
  public long size() {
    if (size == 0) {
      int n = 0;
      for (int i = 0; i < bounds.length; i += 2) {
        n += bounds[i + 1] - bounds[i] + 1;
      }
      size = n;
    }
    return size;
  }

  /** The member with {@code rank} smaller members; O(intervals). */
  public int get(long rank) {
    long left = rank;
    for (int i = 0; i < bounds.length; i += 2) {
      long width = bounds[i + 1] - bounds[i] + 1L;
      if (left < width) {
        return bounds[i] + (int) left;
      }
      left -= width;
    }
    throw new IllegalArgumentException("rank " + rank + " in a set of " + size());
  }

  /** O(log intervals). */
  public boolean contains(int value) {
    if (bounds.length == 2) {
      return bounds[0] <= value && value <= bounds[1];
    }
    int at = Arrays.binarySearch(bounds, value);
    // Found: a bound is a member. Not found: inside an interval iff the insertion point is odd.
    return at >= 0 || ((-at - 1) & 1) == 1;
  }

  /** O(n + m), or O(m log n) where that is less. */
  public boolean intersects(IntSet other) {
    int[] a = bounds;
    int[] b = other.bounds;
    if (b.length <= a.length / SKEW) {
      return meetsSome(b);
    }
    if (a.length <= b.length / SKEW) {
      return other.meetsSome(a);
    }
    int i = 0;
    int j = 0;
    while (i < a.length && j < b.length) {
      if (a[i + 1] < b[j]) {
        i += 2;
      } else if (b[j + 1] < a[i]) {
        j += 2;
      } else {
        return true;
      }
    }
    return false;
  }

  private boolean meetsSome(int[] others) {
    for (int j = 0; j < others.length; j += 2) {
      if (meets(others[j], others[j + 1])) {
        return true;
      }
    }
    return false;
  }

  /** Whether a member lies in {@code first..last}, both included; O(log n). */
  public boolean meets(int first, int last) {
    if (bounds.length == 2) {
      return bounds[0] <= last && first <= bounds[1];
    }
    int at = interval(first);
    return at < intervals() && bounds[2 * at] <= last;
  }

  /** The first interval that does not end before {@code value}; O(log n). */
  public int interval(int value) {
    int low = 0;
    int high = bounds.length / 2;
    while (low < high) {
      int middle = (low + high) >>> 1;
      if (bounds[2 * middle + 1] < value) {
        low = middle + 1;
      } else {
        high = middle;
      }
    }
    return low;
  }

  /** The members, ascending. */
  public int[] toArray() {
    return shifted(0);
  }

  /** The members without their lowest {@code bits} bits, each once; O(intervals + results). */
  public int[] shifted(int bits) {
    int[] out = new int[Math.max(1, bounds.length / 2)];
    int count = 0;
    int next = 0; // lowest that is not out yet
    for (int i = 0; i < bounds.length; i += 2) {
      int last = bounds[i + 1] >>> bits;
      for (int value = Math.max(next, bounds[i] >>> bits); value <= last; value++) {
        if (count == out.length) {
          out = Arrays.copyOf(out, count * 2);
        }
        out[count++] = value;
      }
      next = last + 1;
    }
    return count == out.length ? out : Arrays.copyOf(out, count);
  }

  /** Whether every member of {@code other} is a member of this. */
  public boolean containsAll(IntSet other) {
    int[] a = bounds;
    int[] b = other.bounds;
    if (a.length == 2) {
      return b.length == 0 || (a[0] <= b[0] && b[b.length - 1] <= a[1]);
    }
    if (b.length <= a.length / SKEW) {
      for (int j = 0; j < b.length; j += 2) {
        int at = interval(b[j]);
        if (at >= intervals() || a[2 * at] > b[j] || b[j + 1] > a[2 * at + 1]) {
          return false;
        }
      }
      return true;
    }
    int i = 0;
    for (int j = 0; j < b.length; j += 2) {
      while (i < a.length && a[i + 1] < b[j]) {
        i += 2;
      }
      // Coalescing makes this enough: one interval of a must hold the whole of b's.
      if (i >= a.length || a[i] > b[j] || a[i + 1] < b[j + 1]) {
        return false;
      }
    }
    return true;
  }

  public IntSet union(IntSet other) {
    if (isEmpty() || this == other) {
      return other;
    }
    if (other.isEmpty()) {
      return this;
    }
    Builder out = new Builder(bounds.length + other.bounds.length);
    int i = 0;
    int j = 0;
    while (i < bounds.length || j < other.bounds.length) {
      if (j >= other.bounds.length || (i < bounds.length && bounds[i] <= other.bounds[j])) {
        out.addInOrder(bounds[i], bounds[i + 1]);
        i += 2;
      } else {
        out.addInOrder(other.bounds[j], other.bounds[j + 1]);
        j += 2;
      }
    }
    return out.build();
  }

  public IntSet intersect(IntSet other) {
    int[] a = bounds;
    int[] b = other.bounds;
    if (a.length == 0 || b.length == 0) {
      return EMPTY;
    }
    Builder out = new Builder(Math.min(a.length, b.length) + 2);
    // Nothing of either counts that lies before the other begins.
    int i = 2 * interval(b[0]);
    int j = 2 * other.interval(a[0]);
    while (i < a.length && j < b.length) {
      int first = Math.max(a[i], b[j]);
      int last = Math.min(a[i + 1], b[j + 1]);
      if (first <= last) {
        out.addInOrder(first, last);
      }
      if (a[i + 1] < b[j + 1]) {
        i += 2;
      } else {
        j += 2;
      }
    }
    return out.build();
  }

  /** The members of this that are not members of {@code other}. */
  public IntSet minus(IntSet other) {
    if (isEmpty() || other.isEmpty()) {
      return this;
    }
    int[] b = other.bounds;
    Builder out = new Builder(bounds.length + 2);
    int j = 0;
    for (int i = 0; i < bounds.length; i += 2) {
      int first = bounds[i];
      int last = bounds[i + 1];
      while (j < b.length && b[j + 1] < first) {
        j += 2;
      }
      // this   |---------------|        what is left before each hole is kept,
      // other     |--|    |-------      then we go on behind the hole
      int k = j;
      while (k < b.length && b[k] <= last && first <= last) {
        if (b[k] > first) {
          out.addInOrder(first, b[k] - 1);
        }
        first = b[k + 1] + 1;
        k += 2;
      }
      if (first <= last) {
        out.addInOrder(first, last);
      }
    }
    return out.build();
  }

  public void forEach(IntConsumer action) {
    for (int i = 0; i < bounds.length; i += 2) {
      for (int v = bounds[i]; v <= bounds[i + 1]; v++) {
        action.accept(v);
      }
    }
  }

  @Override
  public boolean equals(Object o) {
    return o == this || o instanceof IntSet other && Arrays.equals(bounds, other.bounds);
  }

  @Override
  public int hashCode() {
    if (hash == 0) {
      int mixed = bounds.length;
      for (int bound : bounds) {
        // Bounds are often multiples of one number, of which a plain polynomial makes few hashes.
        mixed = (mixed ^ bound) * 0x9E37_79B9;
        mixed ^= mixed >>> 15;
      }
      hash = mixed;
    }
    return hash;
  }

  /** {@code {1..5, 9}}. */
  @Override
  public String toString() {
    StringBuilder out = new StringBuilder("{");
    for (int i = 0; i < bounds.length; i += 2) {
      out.append(i == 0 ? "" : ", ").append(bounds[i]);
      if (bounds[i + 1] != bounds[i]) {
        out.append("..").append(bounds[i + 1]);
      }
    }
    return out.append('}').toString();
  }

  /** Collects intervals whose first values never decrease. */
  public static final class Builder {
    private int[] bounds;
    private int length;

    public Builder() {
      this(8);
    }

    private Builder(int capacity) {
      bounds = new int[Math.max(2, capacity)];
    }

    /**
     * Adds {@code first..last}; {@code first} must not be below any earlier call's {@code first}.
     */
    public Builder addInOrder(int first, int last) {
      if (length > 0 && first <= bounds[length - 1] + 1) {
        if (first < bounds[length - 2]) {
          throw new IllegalArgumentException(first + " after " + bounds[length - 2]);
        }
        bounds[length - 1] = Math.max(bounds[length - 1], last);
        return this;
      }
      if (length == bounds.length) {
        bounds = Arrays.copyOf(bounds, length * 2);
      }
      bounds[length++] = first;
      bounds[length++] = last;
      return this;
    }

    public IntSet build() {
      return length == 0 ? EMPTY : new IntSet(Arrays.copyOf(bounds, length));
    }
  }
}
