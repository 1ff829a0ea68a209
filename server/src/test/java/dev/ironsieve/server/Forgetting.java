package dev.ironsieve.server;

import dev.ironsieve.server.draft.LiveDrafts;
import io.quarkus.arc.Arc;

/** Clears the server's memory, as a restart would. */
final class Forgetting {
  private Forgetting() {}

  static void drafts() {
    Arc.container().instance(LiveDrafts.class).get().dropAll();
  }
}
