package dev.ironsieve.server.draft;

import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.FromModel;
import dev.ironsieve.server.jdbc.Database;
import io.quarkus.scheduler.Scheduled;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import org.jboss.logging.Logger;

/** Stores snapshots of drafts, so that a draft opens quickly. */
@ApplicationScoped
public class DraftSnapshots {
  private static final Logger LOG = Logger.getLogger(DraftSnapshots.class);

  private final Database database;
  private final Queue<Due> due = new ConcurrentLinkedQueue<>();

  /** A state of a draft that is to be stored. */
  private record Due(long draft, int revision, LiveDraft.State state) {}

  DraftSnapshots(Database database) {
    this.database = database;
  }

  /** Plans to store the present state of a draft. */
  void add(LiveDraft draft) {
    due.add(new Due(draft.id(), draft.revision(), draft.state()));
  }

  /** Stores all planned states. */
  @Scheduled(every = "2s", concurrentExecution = Scheduled.ConcurrentExecution.SKIP)
  public void storeSnapshots() {
    for (Due first = due.poll(); first != null; first = due.poll()) {
      Due next = first;
      String content = Json.line(FromModel.rulebase(next.state().rulebase()));
      database.inTransaction(
          "storing the state of a draft",
          sql -> {
            DraftStore.addSnapshot(
                sql, next.draft(), next.revision(), next.state().version(), content);
            return null;
          });
      LOG.debugf("stored draft %d at version %d", next.draft(), next.state().version());
    }
  }
}
