package dev.ironsieve.server.draft;

import dev.ironsieve.server.jdbc.Database;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** The changes of a draft. */
@ApplicationScoped
public class DraftHistory {
  private final Database database;
  private final LiveDrafts live;

  DraftHistory(Database database, LiveDrafts live) {
    this.database = database;
    this.live = live;
  }

  /** Up to {@code limit} changes before a version, newest first. */
  public List<ChangeDocument> history(long id, long before, int limit) {
    live.get(id);
    List<DraftStore.Change> changes =
        database.inTransaction(
            "reading the history", sql -> DraftStore.history(sql, id, before, limit));
    List<ChangeDocument> out = new ArrayList<>();
    for (DraftStore.Change change : changes) {
      out.add(document(change, EditDocuments.tell(LiveDraft.edit(change.inverse())), null, null));
    }
    return out;
  }

  /**
   * A change as a document.
   *
   * @param inverse for the history only, else null
   * @param standings of the rules that it affected, or null
   * @param millis time of the analysis, or null
   */
  static ChangeDocument document(
      DraftStore.Change change,
      EditDocument inverse,
      Map<String, StandingDocument> standings,
      Double millis) {
    return new ChangeDocument(
        change.version(),
        change.kind(),
        change.by(),
        change.accountName(),
        change.at().toString(),
        EditDocuments.tell(LiveDraft.edit(change.edit())),
        inverse,
        standings,
        millis);
  }
}
