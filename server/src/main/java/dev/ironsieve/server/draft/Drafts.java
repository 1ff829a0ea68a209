package dev.ironsieve.server.draft;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.Json;
import dev.ironsieve.server.account.Account;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.jdbc.Sql;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.sql.SQLException;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.regex.Pattern;

/**
 * Edits, undo and redo of drafts. A change is validated and analysed, stored in one transaction,
 * and sent to every open view, in this order. If it cannot be stored, the draft in memory is
 * dropped.
 */
@ApplicationScoped
public class Drafts {
  private static final Pattern REQUEST_KEY = Pattern.compile("[\\x21-\\x7e]{1,100}");

  private final Database database;
  private final LiveDrafts live;
  private final DraftEvents events;
  private final DraftConfig config;
  private final EditConflicts conflicts;
  private final DraftSnapshots snapshots;
  private final DraftSize size;
  private final Publications publications;

  Drafts(
      Database database,
      LiveDrafts live,
      DraftEvents events,
      DraftConfig config,
      EditConflicts conflicts,
      DraftSnapshots snapshots,
      DraftSize size,
      Publications publications) {
    this.size = size;
    this.publications = publications;
    this.database = database;
    this.live = live;
    this.events = events;
    this.config = config;
    this.conflicts = conflicts;
    this.snapshots = snapshots;
  }

  /** The draft's rulebase as it stands. */
  public Rulebase rulebase(long id) {
    return live.get(id).state().rulebase();
  }

  /** A draft as it is now. */
  public DraftState state(long id) {
    return DraftState.of(live.get(id));
  }

  /**
   * Makes revisions of drafts, while edits of them wait. Then the drafts are loaded anew, on those
   * revisions.
   *
   * @param ids of the rulebases, each once
   * @param work stores the revisions, or throws, which leaves the drafts as they are
   */
  public <T> T publishing(List<Long> ids, Supplier<T> work) {
    T result = editing(ids.stream().sorted().toList(), work);
    for (long id : ids) {
      events.published(id, live.get(id).revision());
      publications.published(id);
    }
    return result;
  }

  /** Locks drafts in the order of their ids, as everybody does, and works on them. */
  private <T> T editing(List<Long> ids, Supplier<T> work) {
    if (ids.isEmpty()) {
      return work.get();
    }
    return live.editing(
        ids.getFirst(),
        draft -> {
          try {
            return editing(ids.subList(1, ids.size()), work);
          } finally {
            live.drop(draft.id());
          }
        });
  }

  /**
   * Applies the edits in force of a draft again, on top of its next revision; each keeps its
   * account. If they no longer lead to the wanted state, one edit leads there.
   *
   * @param next number of the revision, which is stored in the same transaction
   * @param inForce what the revision contains
   * @param wanted the draft afterwards
   * @param account id of who publishes
   */
  public void rebase(Sql sql, long id, int next, Rulebase inForce, Rulebase wanted, long account)
      throws SQLException {
    LiveDraft draft = live.get(id);
    List<DraftStore.Change> before = DraftStore.inForce(sql, id, draft.revision());
    long version = draft.state().version();
    add(sql, id, next, RebasedChanges.of(before, version, inForce, wanted, account), wanted);
  }

  /**
   * Puts a draft, which keeps its revision, below newer common rules.
   *
   * @param wanted the draft afterwards
   * @param account id of who publishes them
   */
  public void adopt(Sql sql, long id, Rulebase wanted, long account) throws SQLException {
    LiveDraft draft = live.get(id);
    LiveDraft.State now = draft.state();
    add(
        sql,
        id,
        draft.revision(),
        RebasedChanges.of(List.of(), now.version(), now.rulebase(), wanted, account),
        wanted);
  }

  private static void add(
      Sql sql, long id, int revision, List<DraftStore.Change> changes, Rulebase wanted)
      throws SQLException {
    for (DraftStore.Change change : changes) {
      if (!DraftStore.advance(sql, id, change.version() - 1)) {
        throw new Refusal.WrongState("The draft was changed elsewhere at the same moment.");
      }
      DraftStore.add(sql, id, revision, change);
    }
    DraftStore.setCommon(sql, id, wanted.commonName());
  }

  /**
   * Whose request it is.
   *
   * @param client the page that asks, whose own changes are no conflict, or null
   * @param requestKey the same for a request that is sent twice, which then acts once; or null
   */
  public record Requester(Account account, String client, String requestKey) {
    public Requester {
      if (requestKey != null && !REQUEST_KEY.matcher(requestKey).matches()) {
        throw new Refusal.Invalid(
            "Idempotency-Key",
            "1 to 100 visible ASCII characters",
            requestKey.length() + " others");
      }
    }

    /** The same for a request that makes several changes, which acts again if it is sent twice. */
    Requester withoutKey() {
      return new Requester(account, client, null);
    }
  }

  /**
   * Applies an edit. If another person changed other parts of the same rules meanwhile, both
   * changes are kept.
   *
   * @param seen the draft's version that the person saw
   * @throws Refusal.EditConflict if another person changed a touched part since
   */
  public ChangeDocument edit(long id, long seen, Edit edit, Requester requester) {
    return once(
        id,
        requester,
        draft -> {
          long version = draft.state().version();
          if (seen > version || seen < 0) {
            throw new Refusal.Invalid("$.version", "at most " + version, seen + "");
          }
          Edit merged = conflicts.resolved(draft, seen, edit, requester.client());
          return store(draft, "edit", 0, merged, conflicts.applied(draft, merged), requester);
        });
  }

  /** Undoes the account's last edit that is in force. */
  public ChangeDocument undo(long id, Requester requester) {
    return once(
        id,
        requester,
        draft -> {
          DraftStore.Change change =
              database
                  .inTransaction(
                      "looking for an edit to undo",
                      sql -> DraftStore.toUndo(sql, id, draft.revision(), requester.account().id()))
                  .orElseThrow(() -> new Refusal.WrongState("There is nothing of yours to undo."));
          return again(draft, "undo", change, change.inverse(), requester);
        });
  }

  /**
   * Undoes every edit since the revision in force, whoever made it, the last one first.
   *
   * @param seen the draft's version that the person saw
   * @throws Refusal.WrongState if the draft was changed since, or has no changes
   */
  public DraftState discard(long id, long seen, Requester requester) {
    return live.editing(
        id,
        draft -> {
          if (draft.state().version() != seen) {
            throw new Refusal.WrongState(
                "The draft was changed meanwhile. Look at its changes, and discard them again.");
          }
          if (draft.state().changes() == 0) {
            throw new Refusal.WrongState("The draft has no changes to discard.");
          }
          while (draft.state().changes() > 0) {
            DraftStore.Change last =
                database
                    .inTransaction(
                        "looking for the last edit",
                        sql -> DraftStore.lastInForce(sql, id, draft.revision()))
                    .orElseThrow();
            Edit inverse = LiveDraft.edit(last.inverse());
            Rulebase after = conflicts.applied(draft, inverse);
            store(draft, "undo", last.version(), inverse, after, requester);
          }
          return DraftState.of(draft);
        });
  }

  /** Redoes the edit that the account undid last. */
  public ChangeDocument redo(long id, Requester requester) {
    return once(
        id,
        requester,
        draft -> {
          DraftStore.Change change =
              database
                  .inTransaction(
                      "looking for an edit to redo",
                      sql -> DraftStore.toRedo(sql, id, draft.revision(), requester.account().id()))
                  .orElseThrow(() -> new Refusal.WrongState("There is nothing of yours to redo."));
          return again(draft, "redo", change, change.edit(), requester);
        });
  }

  private interface Change {
    ChangeDocument of(LiveDraft draft);
  }

  /** Makes a change, or repeats the answer if the same request has made it already. */
  private ChangeDocument once(long id, Requester requester, Change change) {
    return live.editing(
        id,
        draft -> {
          Optional<DraftStore.Change> made =
              requester.requestKey() == null
                  ? Optional.empty()
                  : database.inTransaction(
                      "looking for a request sent before",
                      sql ->
                          DraftStore.byRequest(
                              sql, id, requester.account().id(), requester.requestKey()));
          return made.map(before -> DraftHistory.document(before, null, null, null))
              .orElseGet(() -> change.of(draft));
        });
  }

  private ChangeDocument again(
      LiveDraft draft, String kind, DraftStore.Change of, String json, Requester requester) {
    Edit edit = LiveDraft.edit(json);
    String[] keys = LiveDraft.keys(edit, draft.state().rulebase());
    conflicts.check(draft, of.version(), keys, requester.account().id());
    Rulebase after;
    try {
      after = conflicts.applied(draft, edit);
    } catch (InvalidModel e) {
      throw new Refusal.WrongState("This can no longer be taken back: " + e.getMessage() + ".");
    }
    return store(draft, kind, of.version(), edit, after, requester);
  }

  private ChangeDocument store(
      LiveDraft draft, String kind, long of, Edit edit, Rulebase after, Requester requester) {
    size.check(after);
    LiveDraft.State before = draft.state();
    Edit inverse = edit.inverse(before.rulebase()).orElseThrow();
    Account account = requester.account();
    DraftStore.Change change =
        new DraftStore.Change(
            before.version() + 1,
            kind,
            of,
            readable(edit),
            readable(inverse),
            LiveDraft.keys(edit, before.rulebase()),
            account.id(),
            account.name(),
            account.displayName(),
            Instant.now().truncatedTo(ChronoUnit.MILLIS),
            requester.client(),
            requester.requestKey());
    boolean stored = false;
    LiveDraft.Analysed analysed;
    try {
      analysed = draft.analyse(after, change.touched());
      stored =
          database.inTransaction(
              "storing a change",
              sql -> {
                boolean ours = DraftStore.advance(sql, draft.id(), before.version());
                if (ours) {
                  DraftStore.add(sql, draft.id(), draft.revision(), change);
                  if (!after.common().equals(before.rulebase().common())) {
                    DraftStore.setCommon(sql, draft.id(), after.commonName());
                  }
                }
                return ours;
              });
    } finally {
      if (!stored) { // or it is not known, so that only the store can tell
        live.drop(draft.id());
      }
    }
    if (!stored) {
      throw new Refusal.WrongState(
          "The draft was changed elsewhere at the same moment. Try again.");
    }
    draft.take(change, analysed);
    if (draft.isSnapshotDue(config.snapshotEvery())) {
      snapshots.add(draft);
    }
    ChangeDocument told =
        DraftHistory.document(
            change,
            null,
            isWhole(edit) ? null : analysed.standings(), // all: let them be fetched
            analysed.millis());
    events.changed(draft.id(), told);
    return told;
  }

  /** Whether views fetch the draft anew after an edit. */
  private static boolean isWhole(Edit edit) {
    return edit instanceof Edit.Restore || edit instanceof Edit.PutCommon;
  }

  /** The document of an edit, which is known to read back. */
  static String readable(Edit edit) {
    String json = Json.write(EditDocuments.write(edit));
    try {
      LiveDraft.edit(json);
    } catch (InvalidDocument e) {
      throw new Refusal.Invalid(
          "$.edit", "an edit that can be stored and taken back", e.faults().getFirst().toString());
    }
    return json;
  }
}
