package dev.ironsieve.server.log;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

class RunProgressTest {
  @Test
  void inAnyOrderEachRecordIsTakenOnceAndWhatNeverComesIsLost() {
    Random random = new Random(1);
    for (int round = 0; round < 200; round++) {
      int count = 1 + random.nextInt(400);
      List<Long> sent = new ArrayList<>();
      Set<Long> arrived = new HashSet<>();
      for (long number = 1; number <= count; number++) {
        for (int times = random.nextInt(3); times > 0; times--) {
          sent.add(number);
          arrived.add(number);
        }
      }
      Collections.shuffle(sent, random);
      RunProgress progress = new RunProgress(1, List.of());
      Set<Long> taken = new HashSet<>();
      long lost = 0;
      long repeated = 0;
      for (long number : sent) {
        if (random.nextInt(10) == 0) { // stored, and read again
          lost += progress.lost();
          repeated += progress.repeated();
          progress = new RunProgress(progress.next(), List.of(progress.missing()));
        }
        if (progress.take(number)) {
          assertThat(taken.add(number)).isTrue();
        }
      }
      assertThat(taken).isEqualTo(arrived);
      assertThat(lost + progress.lost()).isEqualTo(progress.next() - 1 - arrived.size());
      assertThat(repeated + progress.repeated()).isEqualTo(sent.size() - arrived.size());
    }
  }

  @Test
  void whatIsMissingForLongIsLostForGood() {
    RunProgress progress = new RunProgress(1, List.of());
    progress.take(3_000_000_000L);
    assertThat(progress.lost()).isEqualTo(2_999_999_999L);
    assertThat(progress.missing()).hasSize(RunProgress.MOST_MISSING);
    assertThat(progress.take(1)).isFalse();
    assertThat(progress.take(2_999_999_999L)).isTrue();
    assertThat(progress.lost()).isEqualTo(2_999_999_998L);
    assertThat(progress.repeated()).isEqualTo(1);
  }
}
