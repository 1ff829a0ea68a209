package dev.ironsieve.core.cover;

/** Steps of work that one question may take. A step is one comparison of a box with another. */
public final class Budget {
  private long left;

  public Budget(long steps) {
    left = steps;
  }

  /** Steps that are left; never below 0. */
  public long left() {
    return Math.max(0, left);
  }

  /** Takes {@code steps}; false if they are no longer there. */
  public boolean take(long steps) {
    left -= steps;
    return left >= 0;
  }
}
