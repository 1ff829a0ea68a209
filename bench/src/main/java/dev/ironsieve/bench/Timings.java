package dev.ironsieve.bench;

import java.util.Arrays;

/** Times of the same thing, in milliseconds, in the order in which they were taken. */
record Timings(double[] millis) {
  private static final double NANOS_PER_MILLI = 1e6;

  /** What is timed; may throw nothing. */
  interface Step {
    /**
     * @param run its number, from 0
     */
    void run(int run);
  }

  /** Times something {@code runs} times. */
  static Timings of(int runs, Step step) {
    double[] out = new double[runs];
    for (int run = 0; run < runs; run++) {
      long start = System.nanoTime();
      step.run(run);
      out[run] = (System.nanoTime() - start) / NANOS_PER_MILLI;
    }
    return new Timings(out);
  }

  private double[] sorted() {
    double[] out = millis.clone();
    Arrays.sort(out);
    return out;
  }

  double median() {
    return sorted()[millis.length / 2];
  }

  /** So long at most, but for one in twenty. */
  double most() {
    return percentile(95);
  }

  /** The smallest time that so many of a hundred do not exceed (nearest rank). */
  double percentile(int percent) {
    return sorted()[Math.max((int) Math.ceil(percent / 100.0 * millis.length) - 1, 0)];
  }

  double worst() {
    return sorted()[millis.length - 1];
  }

  /** Median and 95th percentile. */
  @Override
  public String toString() {
    return "%.1f ms (95 %%: %.1f ms)".formatted(median(), most());
  }
}
