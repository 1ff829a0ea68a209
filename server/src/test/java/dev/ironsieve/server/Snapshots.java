package dev.ironsieve.server;

import dev.ironsieve.server.draft.DraftSnapshots;
import dev.ironsieve.server.jdbc.Database;
import io.quarkus.arc.Arc;
import java.util.List;

/** The stored states of drafts. */
final class Snapshots {
  private Snapshots() {}

  /** Stores those that are due, as the server does every other second. */
  static void store() {
    Arc.container().instance(DraftSnapshots.class).get().storeSnapshots();
  }

  static List<Long> versions(long rulebase) {
    return Arc.container()
        .instance(Database.class)
        .get()
        .inTransaction(
            "looking at stored states",
            sql ->
                sql.list(
                    "select version from draft_snapshot where rulebase_id = ? order by version",
                    row -> row.getLong("version"),
                    rulebase));
  }
}
