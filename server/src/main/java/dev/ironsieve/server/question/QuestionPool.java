package dev.ironsieve.server.question;

import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.arc.Arc;
import io.quarkus.security.identity.CurrentIdentityAssociation;
import io.quarkus.security.identity.SecurityIdentity;
import io.quarkus.vertx.http.runtime.CurrentVertxRequest;
import io.vertx.ext.web.RoutingContext;
import jakarta.annotation.PreDestroy;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.ForkJoinWorkerThread;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;

/**
 * Answers questions on a few separate threads, so that edits keep the others. Work that a question
 * spreads over several threads stays inside the pool.
 */
@ApplicationScoped
public class QuestionPool {
  /** Names a question, so that its client can ask for its progress. */
  static final String HEADER = "X-Question";

  private static final int RETRY_SECONDS = 2;

  private final QuestionConfig config;
  private final CurrentVertxRequest request;
  private final CurrentIdentityAssociation identities;
  private final ForkJoinPool pool;
  private final AtomicInteger outstanding = new AtomicInteger();
  private final Map<String, Integer> byAccount = new ConcurrentHashMap<>();
  private final Set<Cancellable<?>> all = ConcurrentHashMap.newKeySet();
  private final Map<Named, Cancellable<?>> named = new ConcurrentHashMap<>();

  /** A question of an account, as the client named it. */
  private record Named(String account, String question) {}

  QuestionPool(
      QuestionConfig config, CurrentVertxRequest request, CurrentIdentityAssociation identities) {
    this.config = config;
    this.request = request;
    this.identities = identities;
    int half = Math.max(1, Runtime.getRuntime().availableProcessors() / 2);
    pool = new ForkJoinPool(config.threads().orElse(half), QuestionPool::thread, null, false);
  }

  /** A thread that can load the classes of the server, as a bean that is made on it needs. */
  private static ForkJoinWorkerThread thread(ForkJoinPool pool) {
    ForkJoinWorkerThread thread = ForkJoinPool.defaultForkJoinWorkerThreadFactory.newThread(pool);
    thread.setContextClassLoader(QuestionPool.class.getClassLoader());
    return thread;
  }

  /**
   * Answers a question. It is cancelled past the deadline, and when the client goes away.
   *
   * @throws Refusal.Busy if the account asks too much at once, 503 if all together do or the
   *     deadline passes, both with the seconds after which to try again
   */
  public <T> T ask(Supplier<T> question) {
    String account = account();
    enter(account);
    try {
      Cancellable<T> work = new Cancellable<>(question);
      RoutingContext context = Arc.container().requestContext().isActive() ? client() : null;
      if (context == null) {
        return answer(work);
      }
      context.addEndHandler(ended -> work.cancel());
      return answer(work, new Named(account, context.request().getHeader(HEADER)));
    } finally {
      leave(account);
    }
  }

  private <T> T answer(Cancellable<T> work, Named name) {
    if (name.question() != null) {
      named.put(name, work);
    }
    try {
      return answer(work);
    } finally {
      if (name.question() != null) {
        named.remove(name, work);
      }
    }
  }

  /**
   * The progress of a question of the account.
   *
   * @param question its name, from the header of its request
   * @return empty if it is answered already or was never asked
   */
  Optional<QuestionProgress> progress(String question) {
    Cancellable<?> work = named.get(new Named(account(), question));
    if (work == null) {
      return Optional.empty();
    }
    long waiting = all.stream().filter(other -> !other.started()).count();
    return Optional.of(
        new QuestionProgress(
            work.started(),
            TimeUnit.NANOSECONDS.toSeconds(work.age()),
            config.deadline().toSeconds(),
            waiting));
  }

  private RoutingContext client() {
    return request.getCurrent();
  }

  private String account() {
    if (!Arc.container().requestContext().isActive()) {
      return "";
    }
    SecurityIdentity identity = identities.getIdentity();
    return identity.isAnonymous() ? "" : identity.getPrincipal().getName();
  }

  private void enter(String account) {
    if (outstanding.incrementAndGet() > config.most()) {
      outstanding.decrementAndGet();
      throw new Refusal.Busy(false, "The server has too many questions to answer.", RETRY_SECONDS);
    }
    if (byAccount.merge(account, 1, Integer::sum) > config.mostPerAccount()) {
      leave(account);
      throw new Refusal.Busy(
          true,
          "At most %d questions of one account are answered at once."
              .formatted(config.mostPerAccount()),
          RETRY_SECONDS);
    }
  }

  private void leave(String account) {
    byAccount.computeIfPresent(account, (name, count) -> count == 1 ? null : count - 1);
    outstanding.decrementAndGet();
  }

  private <T> T answer(Cancellable<T> work) {
    all.add(work);
    try {
      return pool.submit(work).get(config.deadline().toMillis(), TimeUnit.MILLISECONDS);
    } catch (TimeoutException e) {
      work.cancel();
      throw late();
    } catch (InterruptedException e) {
      work.cancel();
      Thread.currentThread().interrupt();
      throw late();
    } catch (CancellationException e) {
      throw late();
    } catch (ExecutionException e) {
      throw unwrapped(e.getCause());
    } finally {
      all.remove(work);
    }
  }

  /** The failure of a question; a pool wraps it once more if it failed on another thread. */
  private RuntimeException unwrapped(Throwable failure) {
    for (Throwable cause = failure; cause != null; cause = cause.getCause()) {
      if (cause instanceof CancellationException) {
        return late();
      }
      if (cause instanceof RuntimeException known && known.getClass() != RuntimeException.class) {
        return known;
      }
    }
    return new IllegalStateException("a question failed", failure);
  }

  private Refusal late() {
    return new Refusal.Busy(
        false,
        "The answer took longer than %d seconds.".formatted(config.deadline().toSeconds()),
        RETRY_SECONDS);
  }

  @PreDestroy
  void stop() {
    pool.shutdownNow();
  }
}
