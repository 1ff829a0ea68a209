package dev.ironsieve.server.account;

import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.elytron.security.common.BcryptUtil;
import jakarta.annotation.PreDestroy;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;

/**
 * Hashes and compares passwords (bcrypt), each a good part of a second of processor time, on a
 * small separate pool of threads, so that many tries leave the other processors alone.
 */
@ApplicationScoped
public class PasswordHashing {
  private static final int RETRY_SECONDS = 5;

  private final ThreadPoolExecutor pool;

  PasswordHashing(SignInConfig config) {
    int half = Math.max(1, Runtime.getRuntime().availableProcessors() / 2);
    int threads = config.hashingThreads().orElse(half);
    pool =
        new ThreadPoolExecutor(
            threads,
            threads,
            0,
            TimeUnit.SECONDS,
            new ArrayBlockingQueue<>(config.hashingQueue()),
            work -> {
              Thread thread = new Thread(work, "passwords");
              thread.setDaemon(true);
              return thread;
            });
  }

  /**
   * @throws Refusal.Busy if too many passwords wait already
   */
  boolean matches(String password, String hash) {
    return run(() -> BcryptUtil.matches(password, hash));
  }

  /**
   * @throws Refusal.Busy if too many passwords wait already
   */
  String hash(String password, int cost) {
    return run(() -> BcryptUtil.bcryptHash(password, cost));
  }

  private <T> T run(Callable<T> work) {
    Future<T> answer;
    try {
      answer = pool.submit(work);
    } catch (RejectedExecutionException e) {
      throw new Refusal.Busy(true, "Too many people sign in at this moment.", RETRY_SECONDS);
    }
    try {
      return answer.get();
    } catch (InterruptedException e) {
      answer.cancel(true);
      Thread.currentThread().interrupt();
      throw new Refusal.Busy(false, "The server is stopping.", RETRY_SECONDS);
    } catch (ExecutionException e) {
      throw new IllegalStateException("hashing a password", e.getCause());
    }
  }

  @PreDestroy
  void stop() {
    pool.shutdownNow();
  }
}
