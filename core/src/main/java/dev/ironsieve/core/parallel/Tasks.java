package dev.ironsieve.core.parallel;

import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.IntConsumer;
import java.util.function.Supplier;
import java.util.stream.IntStream;

/** A few pieces of work of unequal length, for all threads. */
public final class Tasks {
  private Tasks() {}

  /**
   * Does the work of the numbers from 0 to {@code count - 1}, each on its own, so that whoever is
   * free takes the next; a stream would hand them out in runs. It goes quicker if the longest stand
   * first. What a piece of work throws is thrown here; others may not be done then.
   */
  public static void each(int count, IntConsumer work) {
    each(count, () -> work);
  }

  /**
   * The same where each thread has something of its own.
   *
   * @param worker makes what does the work on one thread
   */
  public static void each(int count, Supplier<IntConsumer> worker) {
    AtomicInteger next = new AtomicInteger();
    IntStream.rangeClosed(0, ForkJoinPool.getCommonPoolParallelism())
        .parallel()
        .forEach(
            thread -> {
              IntConsumer own = worker.get();
              for (int i = next.getAndIncrement(); i < count; i = next.getAndIncrement()) {
                own.accept(i);
              }
            });
  }
}
