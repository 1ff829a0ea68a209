package dev.ironsieve.server.draft;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.MissingTarget;
import dev.ironsieve.core.edit.RuleMerge;
import dev.ironsieve.core.edit.Touched;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.FromModel;
import dev.ironsieve.server.account.Account;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.scheduler.Scheduled;
import jakarta.enterprise.context.ApplicationScoped;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jboss.logging.Logger;

/**
 * Changing drafts. A change is validated and analysed, stored in one transaction, and told to every
 * open view, in this order. If it cannot be stored, what is in memory is dropped.
 */
@ApplicationScoped
public class Drafts {
  private static final Logger LOG = Logger.getLogger(Drafts.class);
  private static final Pattern REQUEST_KEY = Pattern.compile("[\\x21-\\x7e]{1,100}");

  private final Database database;
  private final LiveDrafts live;
  private final DraftEvents events;
  private final DraftConfig config;
  private final Queue<SnapshotDue> snapshots = new ConcurrentLinkedQueue<>();

  /** A state of a draft that is to be stored. */
  private record SnapshotDue(long draft, int revision, LiveDraft.State state) {}

  Drafts(Database database, LiveDrafts live, DraftEvents events, DraftConfig config) {
    this.database = database;
    this.live = live;
    this.events = events;
    this.config = config;
  }

  /** The draft's rulebase as it stands. */
  public Rulebase rulebase(long id) {
    return live.get(id).state().rulebase();
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
  }

  /**
   * Applies an edit. If another person changed other parts of the same rules meanwhile, both
   * changes are kept.
   *
   * @param seen the draft's version that the person saw
   * @throws Refusal.WrongState if another person changed a touched part since
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
          Edit merged = withoutConflict(draft, seen, edit, requester);
          return store(draft, "edit", 0, merged, applied(draft, merged), requester);
        });
  }

  /** The account's last edit that is in force is taken back. */
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

  /** The account's edit that it undid last is brought back. */
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

  /**
   * Makes a change unless this very request has made it already; then its answer is given again.
   */
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
          return made.map(before -> told(before, null, null, null))
              .orElseGet(() -> change.of(draft));
        });
  }

  private ChangeDocument again(
      LiveDraft draft, String kind, DraftStore.Change of, String json, Requester requester) {
    Edit edit = LiveDraft.edit(json);
    String[] keys = LiveDraft.keys(edit, draft.state().rulebase());
    List<DraftStore.Change> theirs =
        database.inTransaction(
            "looking for conflicts",
            sql ->
                DraftStore.touching(
                    sql, draft.id(), of.version(), keys, null, requester.account().id()));
    if (!theirs.isEmpty()) {
      throw conflict(draft, theirs.getLast(), keys);
    }
    Rulebase after;
    try {
      after = applied(draft, edit);
    } catch (InvalidModel e) {
      throw new Refusal.WrongState("This can no longer be taken back: " + e.getMessage() + ".");
    }
    return store(draft, kind, of.version(), edit, after, requester);
  }

  /**
   * The edit with what others changed in other parts of its rules.
   *
   * @throws Refusal.WrongState if they changed the same parts, or anything else that it touches
   */
  private Edit withoutConflict(LiveDraft draft, long seen, Edit edit, Requester requester) {
    Rulebase now = draft.state().rulebase();
    if (seen == draft.state().version()) {
      return edit;
    }
    String[] keys = LiveDraft.keys(edit, now);
    List<DraftStore.Change> theirs =
        database.inTransaction(
            "looking for conflicts",
            sql -> DraftStore.touching(sql, draft.id(), seen, keys, requester.client(), 0));
    if (theirs.isEmpty()) {
      return edit;
    }
    if (edit instanceof Edit.ReplaceRules replace) {
      List<Edit> inverses =
          theirs.stream().map(change -> LiveDraft.edit(change.inverse())).toList();
      Optional<List<Rule>> merged = RuleMerge.merged(replace.rules(), inverses, now);
      if (merged.isPresent()) {
        return new Edit.ReplaceRules(merged.get());
      }
    }
    throw conflict(draft, theirs.getLast(), keys);
  }

  private Rulebase applied(LiveDraft draft, Edit edit) {
    try {
      return edit.apply(draft.state().rulebase());
    } catch (MissingTarget e) {
      Optional<DraftStore.Change> change =
          database.inTransaction(
              "looking for a change",
              sql ->
                  DraftStore.lastTouching(
                      sql, draft.id(), LiveDraft.key(new Touched(e.kind(), e.name()))));
      if (change.isEmpty()) {
        throw e;
      }
      String detail = change.get().by() + " deleted the " + e.kind() + " of this change.";
      throw new Refusal.EditConflict(detail, conflict(e.kind(), e.name(), change.get()));
    }
  }

  private static Refusal conflict(LiveDraft draft, DraftStore.Change change, String[] keys) {
    List<String> theirs = List.of(change.touched());
    String shared = Stream.of(keys).filter(theirs::contains).findFirst().orElseThrow();
    String kind = shared.substring(0, shared.indexOf(' '));
    String key = shared.substring(shared.indexOf(' ') + 1);
    String name =
        draft.state().rulebase().rules().stream()
            .filter(rule -> rule.id().equals(key))
            .map(rule -> " \"" + rule.name() + "\"")
            .findFirst()
            .orElse(kind.equals("rule") ? "" : " \"" + key + "\"");
    String detail = change.by() + " changed the " + kind + name + " since you saw it.";
    return new Refusal.EditConflict(detail, conflict(kind, key, change));
  }

  private static Refusal.OtherChange conflict(String kind, String key, DraftStore.Change change) {
    return new Refusal.OtherChange(
        kind, key, change.by(), change.version(), change.at().toString());
  }

  private ChangeDocument store(
      LiveDraft draft, String kind, long of, Edit edit, Rulebase after, Requester requester) {
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
      snapshots.add(new SnapshotDue(draft.id(), draft.revision(), draft.state()));
    }
    ChangeDocument told = told(change, null, analysed.standings(), analysed.millis());
    events.changed(draft.id(), told);
    return told;
  }

  /** The document of an edit, which is known to read back. */
  private static String readable(Edit edit) {
    String json = Json.write(EditDocuments.write(edit));
    try {
      LiveDraft.edit(json);
    } catch (InvalidDocument e) {
      throw new Refusal.Invalid(
          "$.edit", "an edit that can be stored and taken back", e.faults().getFirst().toString());
    }
    return json;
  }

  /** Stores the states of drafts that are due, one after the other. */
  @Scheduled(every = "2s", concurrentExecution = Scheduled.ConcurrentExecution.SKIP)
  public void storeSnapshots() {
    for (SnapshotDue due = snapshots.poll(); due != null; due = snapshots.poll()) {
      SnapshotDue next = due;
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

  private static ChangeDocument told(
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

  /** Up to {@code limit} changes before a version, newest first. */
  public List<ChangeDocument> history(long id, long before, int limit) {
    live.get(id);
    List<DraftStore.Change> changes =
        database.inTransaction(
            "reading the history", sql -> DraftStore.history(sql, id, before, limit));
    List<ChangeDocument> out = new ArrayList<>();
    for (DraftStore.Change change : changes) {
      out.add(told(change, EditDocuments.tell(LiveDraft.edit(change.inverse())), null, null));
    }
    return out;
  }
}
