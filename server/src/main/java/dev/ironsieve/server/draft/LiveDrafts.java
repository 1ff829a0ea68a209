package dev.ironsieve.server.draft;

import com.github.benmanes.caffeine.cache.AsyncCache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.Map;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Function;

/**
 * The drafts in memory. Each is loaded once, outside of every lock and transaction; those that were
 * not asked for longest are dropped where they take too much memory, or after a while.
 */
@ApplicationScoped
public class LiveDrafts {
  private static final int RETRY_SECONDS = 5;
  private static final int PERCENT = 100;
  private static final int BYTES = 1000; // of a kilobyte

  private final Database database;
  private final DraftConfig config;
  private final AsyncCache<Long, LiveDraft> drafts;
  private final Map<Long, ReentrantLock> edits = new ConcurrentHashMap<>();

  LiveDrafts(Database database, DraftConfig config) {
    this.database = database;
    this.config = config;
    drafts =
        Caffeine.newBuilder()
            .executor(Executors.newVirtualThreadPerTaskExecutor())
            .maximumWeight(
                Runtime.getRuntime().maxMemory() / BYTES * config.memoryPercent() / PERCENT)
            .weigher((Long id, LiveDraft draft) -> draft.kilobytes())
            .expireAfterAccess(config.idle())
            .buildAsync();
  }

  /**
   * A draft, which is loaded if need be.
   *
   * @throws Refusal.NotFound if there is no such rulebase, 503 if loading takes too long
   */
  LiveDraft get(long id) {
    LiveDraft draft = loaded(id);
    if (draft.isOfAnotherDay()) {
      drop(id);
      return loaded(id);
    }
    return draft;
  }

  private LiveDraft loaded(long id) {
    try {
      return drafts.get(id, this::load).get(config.deadline().toMillis(), TimeUnit.MILLISECONDS);
    } catch (TimeoutException e) {
      throw late("Opening the rulebase");
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw late("Opening the rulebase");
    } catch (ExecutionException | CompletionException e) {
      throw e.getCause() instanceof RuntimeException known
          ? known
          : new IllegalStateException("loading a draft", e.getCause());
    }
  }

  private Refusal late(String what) {
    return new Refusal.Busy(
        false,
        "%s takes longer than %d seconds.".formatted(what, config.deadline().toSeconds()),
        RETRY_SECONDS);
  }

  private LiveDraft load(long id) {
    return new LiveDraft(
        database.inTransaction(
            "loading a draft",
            sql ->
                DraftStore.load(sql, id)
                    .orElseThrow(() -> new Refusal.NotFound("There is no such rulebase."))));
  }

  /**
   * Edits a draft; edits of one draft go one after the other.
   *
   * @throws Refusal.Busy if the edits before it take too long
   */
  <T> T editing(long id, Function<LiveDraft, T> work) {
    get(id); // outside of the lock, where loading may take its time
    ReentrantLock lock = edits.computeIfAbsent(id, draft -> new ReentrantLock());
    try {
      if (!lock.tryLock(config.deadline().toMillis(), TimeUnit.MILLISECONDS)) {
        throw late("The edit before this one");
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw late("The edit before this one");
    }
    try {
      return work.apply(get(id));
    } finally {
      lock.unlock();
    }
  }

  /** Drops a draft from memory; it is derived from the store when it is asked for next. */
  void drop(long id) {
    drafts.synchronous().invalidate(id);
  }

  /** Drops all of them. */
  public void dropAll() {
    drafts.synchronous().invalidateAll();
  }
}
