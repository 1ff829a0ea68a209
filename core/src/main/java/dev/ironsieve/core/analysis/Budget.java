package dev.ironsieve.core.analysis;

/** Steps of work that one question may take. A step is one comparison of a box with another. */
final class Budget {
  private final long limit;
  private long left;

  Budget(long limit) {
    this.limit = limit;
    this.left = limit;
  }

  /** Takes {@code steps}; false if they are no longer there. */
  boolean take(long steps) {
    left -= steps;
    return left >= 0;
  }

  long limit() {
    return limit;
  }
}
