package dev.ironsieve.core.parallel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.atomic.AtomicIntegerArray;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class TasksTest {
  @Test
  void everyPieceIsDoneOnceAndThenItReturns() {
    for (int count : new int[] {0, 1, 2, 10, 1000}) {
      AtomicIntegerArray done = new AtomicIntegerArray(count);
      Tasks.each(count, done::incrementAndGet);
      for (int i = 0; i < count; i++) {
        assertThat(done.get(i)).isEqualTo(1);
      }
    }
  }

  @Test
  void aLongPieceDoesNotKeepTheNextFromBeingBegun() {
    if (ForkJoinPool.getCommonPoolParallelism() == 0) {
      return; // one processor, one thread
    }
    CountDownLatch others = new CountDownLatch(7);
    Tasks.each(
        8,
        number -> {
          if (number == 0) {
            try {
              others.await();
            } catch (InterruptedException e) {
              throw new IllegalStateException(e);
            }
          } else {
            others.countDown();
          }
        });
    assertThat(others.getCount()).isZero();
  }

  @Test
  void itMayBeAskedFromWithinAPiece() {
    int[] sums = new int[20];
    Tasks.each(
        sums.length,
        number -> {
          int[] own = new int[30];
          Tasks.each(own.length, i -> own[i] = number * i);
          sums[number] = IntStream.of(own).sum();
        });
    assertThat(sums).isEqualTo(IntStream.range(0, 20).map(number -> number * 435).toArray());
  }

  @Test
  void whatAPieceThrowsIsThrown() {
    assertThatThrownBy(
            () ->
                Tasks.each(
                    5,
                    number -> {
                      if (number == 3) {
                        throw new IllegalArgumentException("the fourth");
                      }
                    }))
        .isInstanceOf(IllegalArgumentException.class);
  }
}
