package dev.ironsieve.server.account;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.elytron.security.common.BcryptUtil;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;

/** Tries to sign in beyond what one address, or all together, may have. */
class SignInLimitsTest {
  private static final SignInConfig CONFIG =
      new SignInConfig() {
        @Override
        public int failures() {
          return 3;
        }

        @Override
        public Duration lockedFor() {
          return Duration.ofMinutes(15);
        }

        @Override
        public Duration lasts() {
          return Duration.ofHours(1);
        }

        @Override
        public int triesPerAddress() {
          return 4;
        }

        @Override
        public OptionalInt hashingThreads() {
          return OptionalInt.of(1);
        }

        @Override
        public int hashingQueue() {
          return 2;
        }
      };

  @Test
  void oneAddressIsHeldUpAndAnotherIsNot() {
    SignInLimits limits = new SignInLimits(CONFIG);
    for (int i = 0; i < 4; i++) {
      limits.countTry("192.0.2.1");
    }
    assertThatThrownBy(() -> limits.countTry("192.0.2.1"))
        .isInstanceOfSatisfying(
            Refusal.Busy.class,
            refusal -> {
              assertThat(refusal.client()).isTrue();
              assertThat(refusal.seconds()).isBetween(1, 16);
            });
    limits.countTry("192.0.2.2");
  }

  @Test
  void aNameThatNoAccountHasIsLockedLikeOthers() {
    SignInLimits limits = new SignInLimits(CONFIG);
    Instant until = Instant.now().plus(CONFIG.lockedFor());
    limits.countFailure("nobody", until);
    limits.countFailure("nobody", until);
    assertThat(limits.lockedUntil("nobody")).isEmpty();
    limits.countFailure("nobody", until);
    assertThat(limits.lockedUntil("nobody")).contains(until);
    assertThat(limits.lockedUntil("anyone")).isEmpty();
  }

  /** One is compared, two wait, the rest is refused at once. */
  @Test
  void tooManyPasswordsAtOnceAreRefused() throws Exception {
    String hash = BcryptUtil.bcryptHash("right", 10);
    PasswordHashing hashing = new PasswordHashing(CONFIG);
    int tries = 12;
    CountDownLatch start = new CountDownLatch(tries);
    List<Future<Integer>> answers = new ArrayList<>();
    try (ExecutorService many = Executors.newFixedThreadPool(tries)) {
      for (int i = 0; i < tries; i++) {
        answers.add(
            many.submit(
                () -> {
                  start.countDown();
                  start.await();
                  try {
                    return hashing.matches("right", hash) ? 200 : 401;
                  } catch (Refusal.Busy e) {
                    return e.client() ? 429 : 503;
                  }
                }));
      }
    }
    List<Integer> statuses = new ArrayList<>();
    for (Future<Integer> answer : answers) {
      statuses.add(answer.get());
    }
    assertThat(statuses).containsOnly(200, 429).contains(200, 429);
    assertThat(hashing.matches("wrong", hash)).isFalse();
    hashing.stop();
  }
}
