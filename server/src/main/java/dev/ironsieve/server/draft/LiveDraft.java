package dev.ironsieve.server.draft;

import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.checks.CheckResult;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.Touched;
import dev.ironsieve.core.matcher.Brief;
import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.reach.ReachAnswer;
import dev.ironsieve.core.reach.ReachQuestion;
import dev.ironsieve.core.repair.Repairs;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.server.draft.RepairResource.RepairDocument;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Stream;

/**
 * A draft in memory: derived from the store, and dropped and derived again at any time. Guarded by
 * its own monitor.
 */
final class LiveDraft {
  private static final double NANOS_PER_MILLI = 1e6;

  private final long id;
  private final String name;
  private final int revision;
  private final List<DraftStore.Change> changes = new ArrayList<>();
  private final Map<String, DraftStore.Change> lastTouched = new HashMap<>();
  private final LiveAnalysis analysis;
  private Rulebase rulebase;
  private long version;
  private double analysisMillis;

  LiveDraft(DraftStore.Row row, List<DraftStore.Change> stored) {
    id = row.id();
    name = row.name();
    revision = row.revision();
    rulebase = ToModel.rulebase(read(row.content(), RulebaseDocument.class));
    for (DraftStore.Change change : stored) {
      rulebase = edit(change.edit()).apply(rulebase);
      remember(change);
    }
    version = row.version();
    long start = System.nanoTime();
    analysis = new LiveAnalysis(rulebase);
    analysisMillis = (System.nanoTime() - start) / NANOS_PER_MILLI;
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

  long version() {
    return version;
  }

  Rulebase rulebase() {
    return rulebase;
  }

  /** The pinned edition of each vocabulary, by its coordinate's word. */
  Map<String, String> editions() {
    Map<String, String> out = new LinkedHashMap<>();
    rulebase.pinned().forEach(v -> out.put(v.coordinate().word(), v.edition()));
    return out;
  }

  double analysisMillis() {
    return analysisMillis;
  }

  /** Where every rule stands, by its id. */
  Map<String, StandingDocument> standings() {
    analysis.answerAll();
    return standings(rulebase.rules().stream().map(Rule::id).toList());
  }

  private Map<String, StandingDocument> standings(Collection<String> ids) {
    Map<String, StandingDocument> out = new LinkedHashMap<>();
    ids.forEach(id -> out.put(id, StandingDocument.of(id, analysis)));
    return out;
  }

  List<CheckResult> checks() {
    return rulebase.checks().isEmpty() ? List.of() : CheckResult.of(rulebase, analysis.order());
  }

  List<RepairDocument> repairs(String rule, String kind) {
    return analysis.findings(rule).stream()
        .filter(finding -> finding.kind().word().equals(kind))
        .flatMap(finding -> Repairs.of(finding, analysis).stream())
        .map(repair -> RepairDocument.of(repair, rulebase))
        .toList();
  }

  Matcher matcher() {
    return new Matcher(analysis.order());
  }

  /**
   * Which rules decide the connections that a pattern matches; each with a connection that says no
   * more than the pattern and what its rule hangs on.
   */
  ReachAnswer reach(Rule pattern, int axis) {
    Order live = analysis.order();
    boolean fits = live.space().region(live.resolution().match(pattern)) != null;
    Order order = fits ? live : new Order(rulebase);
    ReachAnswer answer = ReachQuestion.ask(order, pattern, axis, ReachQuestion.STEPS);
    return new ReachAnswer(
        answer.deciders().stream()
            .map(
                found ->
                    found.showing(Brief.deciding(found.witness(), pattern.terms().keySet(), order)))
            .toList(),
        answer.complete());
  }

  /** How many edits are in force. */
  int changesInForce() {
    return (int) changes.stream().filter(c -> c.kind().equals("edit")).count() - undone().size();
  }

  /** Takes over a change that is stored, and returns the standings that it may have changed. */
  Map<String, StandingDocument> take(DraftStore.Change change, Rulebase after) {
    Set<String> moved = new HashSet<>();
    for (String touched : change.touched()) {
      if (touched.startsWith(Touched.RULE + " ")) {
        moved.add(touched.substring(Touched.RULE.length() + 1));
      }
    }
    long start = System.nanoTime();
    LiveAnalysis.Changed changed = analysis.update(after, moved);
    analysisMillis = (System.nanoTime() - start) / NANOS_PER_MILLI;
    rulebase = after;
    version = change.version();
    remember(change);
    Set<String> ids = new LinkedHashSet<>(changed.answers());
    ids.addAll(changed.reaches());
    return standings(ids);
  }

  private void remember(DraftStore.Change change) {
    changes.add(change);
    for (String touched : change.touched()) {
      lastTouched.put(touched, change);
    }
  }

  /**
   * The last change behind version {@code since} of something that {@code edit} touches, among
   * those that are not the person's own.
   */
  Optional<DraftStore.Change> changedSince(
      long since, Edit edit, Predicate<DraftStore.Change> own) {
    Set<String> keys = new HashSet<>();
    edit.touched(rulebase).forEach(touched -> keys.add(key(touched)));
    return changes.reversed().stream()
        .takeWhile(change -> change.version() > since)
        .filter(change -> !own.test(change))
        .filter(change -> Stream.of(change.touched()).anyMatch(keys::contains))
        .findFirst();
  }

  /** The last change of something by its kind and key. */
  Optional<DraftStore.Change> lastChangeOf(String kind, String key) {
    return Optional.ofNullable(lastTouched.get(key(new Touched(kind, key))));
  }

  static String key(Touched touched) {
    return touched.kind() + " " + touched.key();
  }

  /** Versions of edits that an undo took back and no redo brought again. */
  private Set<Long> undone() {
    Set<Long> undone = new HashSet<>();
    for (DraftStore.Change change : changes) {
      switch (change.kind()) {
        case "undo" -> undone.add(change.of());
        case "redo" -> undone.remove(change.of());
        default -> {}
      }
    }
    return undone;
  }

  /** The account's last edit that is in force. */
  Optional<DraftStore.Change> toUndo(long account) {
    Set<Long> undone = undone();
    return changes.reversed().stream()
        .filter(change -> change.account() == account && change.kind().equals("edit"))
        .filter(change -> !undone.contains(change.version()))
        .findFirst();
  }

  /** The account's edit that it undid last, unless it has made another edit since. */
  Optional<DraftStore.Change> toRedo(long account) {
    Set<Long> undone = undone();
    for (DraftStore.Change change : changes.reversed()) {
      if (change.account() != account) {
        continue;
      }
      if (change.kind().equals("edit") && !undone.contains(change.version())) {
        return Optional.empty();
      }
      if (change.kind().equals("undo") && undone.contains(change.of())) {
        long of = change.of();
        return changes.stream().filter(c -> c.version() == of).findFirst();
      }
    }
    return Optional.empty();
  }
}
