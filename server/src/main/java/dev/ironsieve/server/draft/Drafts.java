package dev.ironsieve.server.draft;

import dev.ironsieve.core.checks.CheckResult;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.MissingTarget;
import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.matcher.Trace;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.reach.ReachAnswer;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.core.text.TermCompletion;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.FromModel;
import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.server.account.Account;
import dev.ironsieve.server.http.Problem;
import dev.ironsieve.server.jdbc.Database;
import jakarta.enterprise.context.ApplicationScoped;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;

/**
 * Changing and questioning drafts. A change is validated, stored in one transaction, taken over by
 * the live engine, and told to every open view, in this order.
 */
@ApplicationScoped
public class Drafts {
  private final Database database;
  private final DraftEvents events;
  private final ProbeFill fill;
  private final Map<Long, LiveDraft> live = new ConcurrentHashMap<>();

  Drafts(Database database, DraftEvents events, ProbeFill fill) {
    this.database = database;
    this.fill = fill;
    this.events = events;
  }

  /** The whole draft, as a view needs it first. */
  public DraftDocument document(long id) {
    return with(
        id,
        draft -> {
          RulebaseDocument rulebase = FromModel.rulebase(draft.rulebase());
          return new DraftDocument(
              draft.id(),
              draft.name(),
              draft.revision(),
              draft.version(),
              draft.changesInForce(),
              rulebase.zones(),
              rulebase.addresses(),
              rulebase.services(),
              FromModel.terms(draft.rulebase(), ObjectKind.HOST_LIST),
              FromModel.terms(draft.rulebase(), ObjectKind.SCHEDULE),
              FromModel.terms(draft.rulebase(), ObjectKind.DEVICE_STATE),
              Objects.requireNonNullElse(rulebase.ratePlans(), List.of()),
              Objects.requireNonNullElse(rulebase.notices(), List.of()),
              rulebase.lineCapacity(),
              draft.rulebase().handling().timeZone().getId(),
              Objects.requireNonNullElse(rulebase.checks(), List.of()),
              draft.editions(),
              draft.rulebase().feeds().stream().map(PinnedFeed::of).toList(),
              rulebase.sections(),
              draft.standings(),
              draft.analysisMillis());
        });
  }

  /** What becomes of the draft's checks. */
  public List<CheckResult> checks(long id) {
    return with(id, LiveDraft::checks);
  }

  /** The ways to remove what was found about a rule, by the kind of the finding. */
  List<RepairResource.RepairDocument> repairs(long id, String rule, String kind) {
    return with(id, draft -> draft.repairs(rule, kind));
  }

  /** The draft's rulebase as it stands. */
  public Rulebase rulebase(long id) {
    return with(id, LiveDraft::rulebase);
  }

  /**
   * Makes an edit.
   *
   * @param seen the draft's version that the person saw
   * @param client the page that asks, whose own changes are no conflict, or null
   * @throws Problem 409 if somebody changed since what the edit touches
   */
  public ChangeDocument edit(long id, long seen, Edit edit, Account account, String client) {
    return with(
        id,
        draft -> {
          if (seen > draft.version() || seen < 0) {
            throw Problem.invalid("$.version", "at most " + draft.version(), seen + "");
          }
          draft
              .changedSince(seen, edit, change -> client != null && client.equals(change.client()))
              .ifPresent(
                  change -> {
                    throw conflict(draft, change, edit);
                  });
          Rulebase after = applied(draft, edit);
          return store(draft, "edit", 0, edit, after, account, client);
        });
  }

  public ChangeDocument undo(long id, Account account) {
    return with(
        id,
        draft -> {
          DraftStore.Change change =
              draft
                  .toUndo(account.id())
                  .orElseThrow(() -> Problem.of(409, "There is nothing of yours to undo."));
          return again(draft, "undo", change, change.inverse(), account);
        });
  }

  public ChangeDocument redo(long id, Account account) {
    return with(
        id,
        draft -> {
          DraftStore.Change change =
              draft
                  .toRedo(account.id())
                  .orElseThrow(() -> Problem.of(409, "There is nothing of yours to redo."));
          return again(draft, "redo", change, change.edit(), account);
        });
  }

  private ChangeDocument again(
      LiveDraft draft, String kind, DraftStore.Change of, String json, Account account) {
    Edit edit = LiveDraft.edit(json);
    draft
        .changedSince(of.version(), edit, change -> change.account() == account.id())
        .ifPresent(
            change -> {
              throw conflict(draft, change, edit);
            });
    Rulebase after;
    try {
      after = applied(draft, edit);
    } catch (InvalidModel e) {
      throw Problem.of(409, "This can no longer be taken back: " + e.getMessage() + ".");
    }
    return store(draft, kind, of.version(), edit, after, account, null);
  }

  private static Rulebase applied(LiveDraft draft, Edit edit) {
    try {
      return edit.apply(draft.rulebase());
    } catch (MissingTarget e) {
      Optional<DraftStore.Change> change = draft.lastChangeOf(e.kind(), e.name());
      if (change.isEmpty()) {
        throw e;
      }
      String detail = change.get().by() + " took away the " + e.kind() + " that this speaks of.";
      throw Problem.conflict(detail, conflict(e.kind(), e.name(), change.get()));
    }
  }

  private static Problem conflict(LiveDraft draft, DraftStore.Change change, Edit edit) {
    List<String> theirs = List.of(change.touched());
    String shared =
        edit.touched(draft.rulebase()).stream()
            .map(LiveDraft::key)
            .filter(theirs::contains)
            .findFirst()
            .orElseThrow();
    String kind = shared.substring(0, shared.indexOf(' '));
    String key = shared.substring(shared.indexOf(' ') + 1);
    String name =
        draft.rulebase().rules().stream()
            .filter(rule -> rule.id().equals(key))
            .map(rule -> " \"" + rule.name() + "\"")
            .findFirst()
            .orElse(kind.equals("rule") ? "" : " \"" + key + "\"");
    String detail = change.by() + " changed the " + kind + name + " since you saw it.";
    return Problem.conflict(detail, conflict(kind, key, change));
  }

  private static Problem.Conflict conflict(String kind, String key, DraftStore.Change change) {
    return new Problem.Conflict(kind, key, change.by(), change.version(), change.at().toString());
  }

  private ChangeDocument store(
      LiveDraft draft,
      String kind,
      long of,
      Edit edit,
      Rulebase after,
      Account account,
      String client) {
    Edit inverse = edit.inverse(draft.rulebase()).orElseThrow();
    DraftStore.Change change =
        new DraftStore.Change(
            draft.version() + 1,
            kind,
            of,
            Json.write(EditDocuments.write(edit)),
            Json.write(EditDocuments.write(inverse)),
            edit.touched(draft.rulebase()).stream().map(LiveDraft::key).toArray(String[]::new),
            account.id(),
            account.name(),
            account.displayName(),
            Instant.now().truncatedTo(ChronoUnit.MILLIS),
            client);
    boolean stored =
        database.inTransaction(
            "storing a change",
            sql -> {
              boolean ours = DraftStore.advance(sql, draft.id(), draft.version());
              if (ours) {
                DraftStore.add(sql, draft.id(), draft.revision(), change);
              }
              return ours;
            });
    if (!stored) {
      live.remove(draft.id());
      throw Problem.of(409, "The draft was changed elsewhere at the same moment. Try again.");
    }
    Map<String, StandingDocument> changed = taken(draft, change, after);
    ChangeDocument told =
        told(change, EditDocuments.tell(edit), null, changed, draft.analysisMillis());
    events.changed(draft.id(), told);
    return told;
  }

  private Map<String, StandingDocument> taken(
      LiveDraft draft, DraftStore.Change change, Rulebase after) {
    try {
      return draft.take(change, after);
    } catch (RuntimeException e) {
      live.remove(draft.id()); // Stored, but not taken over: derive it from the store again.
      throw e;
    }
  }

  private static ChangeDocument told(
      DraftStore.Change change,
      EditDocument edit,
      EditDocument inverse,
      Map<String, StandingDocument> standings,
      Double millis) {
    return new ChangeDocument(
        change.version(),
        change.kind(),
        change.by(),
        change.accountName(),
        change.at().toString(),
        edit,
        inverse,
        standings,
        millis);
  }

  /** Up to {@code limit} changes before a version, newest first. */
  public List<ChangeDocument> history(long id, long before, int limit) {
    with(id, LiveDraft::version);
    return database.inTransaction(
        "reading the history",
        sql ->
            DraftStore.history(sql, id, before, limit).stream()
                .map(
                    change ->
                        told(
                            change,
                            EditDocuments.tell(LiveDraft.edit(change.edit())),
                            EditDocuments.tell(LiveDraft.edit(change.inverse())),
                            null,
                            null))
                .toList());
  }

  /** Names that rules can say of some coordinates and that fit what was typed, best first. */
  public List<TermOption> terms(long id, Set<Coordinate> coordinates, String text, int most) {
    List<Vocabulary> vocabularies =
        rulebase(id).named().stream()
            .filter(vocabulary -> coordinates.contains(vocabulary.coordinate()))
            .toList();
    return TermCompletion.of(vocabularies, text, most).stream().map(TermOption::of).toList();
  }

  /** What the draft decides for a connection. */
  public ProbeAnswer probe(long id, String line) {
    return with(
        id,
        draft -> {
          Connection said = ConnectionLine.parse(line, draft.rulebase());
          ProbeFill.Filled filled = fill.fill(said, draft.rulebase());
          Connection connection = filled.connection();
          Matcher matcher = draft.matcher();
          Trace trace = matcher.trace(connection);
          List<ProbeAnswer.Passed> passed =
              trace.passed().stream()
                  .map(
                      p ->
                          new ProbeAnswer.Passed(
                              p.rule().id(), p.turnedAwayBy().stream().map(Drafts::part).toList()))
                  .toList();
          return new ProbeAnswer(
              draft.version(),
              ConnectionLine.format(connection),
              trace.decided() == null ? "drop" : trace.decided().verdict().word(),
              trace.decided() == null ? null : trace.decided().id(),
              passed,
              matcher.stages(connection).stream().map(ProbeAnswer.AtStage::of).toList(),
              remarks(filled, draft.rulebase()));
        });
  }

  /**
   * Which rules of the draft decide the connections that a pattern matches.
   *
   * @param axis the axis whose values are told
   */
  public ReachAnswer reach(long id, Rule pattern, int axis) {
    return with(id, draft -> draft.reach(pattern, axis));
  }

  private static String part(Trace.Part part) {
    return switch (part) {
      case FROM_ZONE -> "fromZones";
      case FROM_ADDRESS -> "fromAddresses";
      case TO_ZONE -> "toZones";
      case TO_ADDRESS -> "toAddresses";
      case SERVICE -> "services";
      case PERSON, DEVICE, SITE, APPLICATION, FILE_KIND, TIME ->
          Coordinate.valueOf(part.name()).word();
    };
  }

  private static List<String> remarks(ProbeFill.Filled filled, Rulebase rulebase) {
    Connection connection = filled.connection();
    List<String> out = new ArrayList<>(filled.remarks());
    remark(connection.from(), "from", rulebase, out);
    remark(connection.to(), "to", rulebase, out);
    out.addAll(Listed.of(connection, rulebase));
    if (connection.protocol() == Connection.UNKNOWN) {
      out.add("No service is said, so no rule that asks for one holds.");
    }
    return out;
  }

  private static void remark(
      Connection.Endpoint end, String word, Rulebase rulebase, List<String> out) {
    if (end.zone() == null && !rulebase.zones().isEmpty()) {
      out.add("No zone is known for \"" + word + "\", so no rule that asks for one holds.");
      return;
    }
    for (Zone zone : rulebase.zones()) {
      if (zone.name().equals(end.zone())
          && end.address() != null
          && !zone.networks().isEmpty()
          && zone.networks().stream().noneMatch(n -> n.contains(end.address()))) {
        out.add(end.address() + " is outside the networks of " + zone.name() + ".");
      }
    }
  }

  private <T> T with(long id, Function<LiveDraft, T> work) {
    LiveDraft draft = live.computeIfAbsent(id, this::load);
    synchronized (draft) {
      return work.apply(draft);
    }
  }

  private LiveDraft load(long id) {
    return database.inTransaction(
        "loading a draft",
        sql -> {
          DraftStore.Row row =
              DraftStore.draft(sql, id)
                  .orElseThrow(() -> Problem.of(404, "There is no such rulebase."));
          return new LiveDraft(row, DraftStore.changesAfter(sql, id, row.revision(), 0));
        });
  }

  /** Forgets what is in memory; the next question derives it from the store again. */
  public void forget() {
    live.clear();
  }
}
