package dev.ironsieve.server;

import dev.ironsieve.server.draft.LiveDrafts;
import io.quarkus.arc.Arc;

/** Makes the server drop what it holds in memory, as a restart would. */
final class Forgetting {
  private Forgetting() {}

  static void drafts() {
    Arc.container().instance(LiveDrafts.class).get().dropAll();
  }
}
