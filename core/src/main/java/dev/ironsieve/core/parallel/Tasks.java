package dev.ironsieve.core.parallel;

import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.IntConsumer;
import java.util.stream.IntStream;

/** Runs a few tasks of unequal length on all threads. */
public final class Tasks {
  private Tasks() {}

  /**
   * Does the work of the numbers from 0 to {@code count - 1}, each on its own, so that whoever is
   * free takes the next; a stream would hand them out in runs. It goes quicker if the longest stand
   * first. What a piece of work throws is thrown here; others may not be done then.
   */
  public static void each(int count, IntConsumer work) {
    AtomicInteger next = new AtomicInteger();
    IntStream.rangeClosed(0, ForkJoinPool.getCommonPoolParallelism())
        .parallel()
        .forEach(
            thread -> {
              for (int i = next.getAndIncrement(); i < count; i = next.getAndIncrement()) {
                work.accept(i);
              }
            });
  }
}
