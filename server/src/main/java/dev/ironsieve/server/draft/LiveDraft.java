package dev.ironsieve.server.draft;

import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.Touched;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.formats.document.ToModel;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CompletableFuture;

/**
 * A draft in memory: derived from the store, and dropped and derived again at any time. Its state
 * is immutable and read without a lock. Edits go one after the other and have an analysis of their
 * own; questions have another, which follows.
 */
final class LiveDraft {
  private static final double NANOS_PER_MILLI = 1e6;

  /**
   * The draft at one of its versions.
   *
   * @param changes how many edits are in force
   * @param analysisMillis time of the last analysis, in milliseconds
   */
  record State(long version, Rulebase rulebase, int changes, double analysisMillis) {}

  /** The result of an edit before it is stored. */
  record Analysed(
      Rulebase after, Set<String> moved, Map<String, StandingDocument> standings, double millis) {}

  private final long id;
  private final String name;
  private final int revision;
  private final LocalDate day; // by the gateway's clock, from which on times count
  private final QuestionIndex questions;
  private CompletableFuture<LiveAnalysis> analysis; // of edits; null until one is expected
  private volatile State state;
  private long snapshotVersion;

  LiveDraft(DraftStore.Stored stored) {
    id = stored.row().id();
    name = stored.row().name();
    revision = stored.row().revision();
    Rulebase rulebase = ToModel.rulebase(read(stored.content(), RulebaseDocument.class));
    for (DraftStore.Change change : stored.changes()) {
      rulebase = edit(change.edit()).apply(rulebase);
    }
    snapshotVersion = stored.contentVersion();
    long start = System.nanoTime();
    day = today(rulebase);
    LiveAnalysis asked = new LiveAnalysis(rulebase, day);
    double millis = (System.nanoTime() - start) / NANOS_PER_MILLI;
    state = new State(stored.row().version(), rulebase, stored.inForce(), millis);
    questions = new QuestionIndex(state, asked, day);
  }

  private static LocalDate today(Rulebase rulebase) {
    return LocalDate.now(rulebase.gatewaySettings().timeZone());
  }

  /** Whether another day has begun since this was made, or the gateway's clock was changed. */
  boolean isOfAnotherDay() {
    return !day.equals(today(state.rulebase()));
  }

  private static <T> T read(String json, Class<T> type) {
    return Json.read(json.getBytes(StandardCharsets.UTF_8), type);
  }

  /** The edit of a stored document. */
  static Edit edit(String json) {
    return EditDocuments.read(read(json, EditDocument.class), "$");
  }

  long id() {
    return id;
  }

  String name() {
    return name;
  }

  int revision() {
    return revision;
  }

  State state() {
    return state;
  }

  QuestionIndex questions() {
    return questions;
  }

  /** Prepares for edits, on another thread, so that the first one need not wait. */
  synchronized void expectEdits() {
    if (analysis == null) {
      Rulebase rulebase = state.rulebase();
      analysis =
          CompletableFuture.supplyAsync(
              () -> {
                LiveAnalysis made = new LiveAnalysis(rulebase, day);
                made.answerAll();
                return made;
              });
    }
  }

  private LiveAnalysis analysis() {
    expectEdits();
    return analysis.join();
  }

  /**
   * Analyses the state after an edit. It must be stored and taken over, or this draft be dropped.
   */
  Analysed analyse(Rulebase after, String[] touched) {
    Set<String> moved = new HashSet<>();
    for (String key : touched) {
      if (key.startsWith(Touched.RULE + " ")) {
        moved.add(key.substring(Touched.RULE.length() + 1));
      }
    }
    LiveAnalysis own = analysis();
    long start = System.nanoTime();
    LiveAnalysis.Changed changed = own.update(after, moved);
    double millis = (System.nanoTime() - start) / NANOS_PER_MILLI;
    Set<String> ids = new LinkedHashSet<>(changed.answers());
    ids.addAll(changed.reaches());
    Map<String, StandingDocument> standings = new LinkedHashMap<>();
    ids.forEach(rule -> standings.put(rule, StandingDocument.of(rule, own)));
    return new Analysed(after, moved, standings, millis);
  }

  /** Applies a change that is stored. */
  void take(DraftStore.Change change, Analysed analysed) {
    int inForce = state.changes() + (change.kind().equals("undo") ? -1 : 1);
    state = new State(change.version(), analysed.after(), inForce, analysed.millis());
    questions.follow(state, analysed.moved());
  }

  /** Whether it is time to store the state, which is then taken to be done. */
  boolean isSnapshotDue(int every) {
    boolean due = state.version() - snapshotVersion >= every;
    snapshotVersion = due ? state.version() : snapshotVersion;
    return due;
  }

  static String key(Touched touched) {
    return touched.kind() + " " + touched.key();
  }

  static String[] keys(Edit edit, Rulebase before) {
    return edit.touched(before).stream().map(LiveDraft::key).toArray(String[]::new);
  }

  /** The pinned edition of each vocabulary, by its coordinate's word. */
  static Map<String, String> editions(Rulebase rulebase) {
    Map<String, String> out = new LinkedHashMap<>();
    rulebase.pinned().forEach(v -> out.put(v.coordinate().word(), v.edition()));
    return out;
  }

  /** About how many bytes this takes: both analyses, and the rulebase. */
  int kilobytes() {
    Rulebase rulebase = state.rulebase();
    long values = rulebase.vocabularies().stream().mapToLong(v -> v.values().size()).sum();
    long objects = rulebase.addresses().size() + (long) rulebase.services().size();
    long bytes = 1_000_000 + 16_000L * rulebase.rules().size() + 300 * values + 1000 * objects;
    return (int) Math.min(Integer.MAX_VALUE, bytes / 1000);
  }
}
