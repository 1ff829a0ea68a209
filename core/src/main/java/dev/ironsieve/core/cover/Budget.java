package dev.ironsieve.core.cover;

import java.util.concurrent.CancellationException;

/**
 * Steps of work that one question may take. A step is one comparison of a box with another. A
 * thread that is interrupted gets a {@link CancellationException} as soon as it takes a step, so
 * that whoever asked can give up.
 */
public final class Budget {
  private long left;

  public Budget(long steps) {
    left = steps;
  }

  /** Steps that are left; never below 0. */
  public long left() {
    return Math.max(0, left);
  }

  /** Charges {@code steps}; false if the budget is used up. */
  public boolean take(long steps) {
    if (Thread.currentThread().isInterrupted()) {
      throw new CancellationException("interrupted");
    }
    left -= steps;
    return left >= 0;
  }
}
