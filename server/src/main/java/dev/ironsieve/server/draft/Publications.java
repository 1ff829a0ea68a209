package dev.ironsieve.server.draft;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Future;

/** Wakes those who wait for the next revision of a rulebase on this server. */
@ApplicationScoped
public class Publications {
  private final Map<Long, CompletableFuture<Void>> waiting = new ConcurrentHashMap<>();

  /** Is done at the next publication; get it before looking whether one happened. */
  public Future<Void> next(long rulebase) {
    return waiting.computeIfAbsent(rulebase, id -> new CompletableFuture<>()).copy();
  }

  /** Wakes those who wait for another revision of a rulebase. */
  public void published(long rulebase) {
    CompletableFuture<Void> all = waiting.remove(rulebase);
    if (all != null) {
      all.complete(null);
    }
  }
}
