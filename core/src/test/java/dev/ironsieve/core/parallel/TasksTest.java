package dev.ironsieve.core.parallel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicIntegerArray;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class TasksTest {
  private static void await(CountDownLatch latch) {
    try {
      assertThat(latch.await(10, TimeUnit.SECONDS)).isTrue();
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }

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
            await(others);
          } else {
            others.countDown();
          }
        });
    assertThat(others.getCount()).isZero();
  }

  @Test
  void piecesAreBegunInTheirOrder() {
    if (ForkJoinPool.getCommonPoolParallelism() == 0) {
      return;
    }
    CountDownLatch both = new CountDownLatch(2);
    List<Integer> begun = Collections.synchronizedList(new ArrayList<>());
    Tasks.each(
        8,
        number -> {
          begun.add(number);
          if (number < 2) {
            both.countDown();
            await(both);
          }
        });
    assertThat(begun.subList(0, 2)).containsExactlyInAnyOrder(0, 1);
    assertThat(begun).hasSize(8);
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
