package dev.ironsieve.core.analysis;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Resolution;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * Everything that follows from the rules of one rulebase alone, kept up to date through edits:
 * after an edit only those answers are worked out again whose certificate the edit touches. Not
 * safe for use by several threads at once.
 */
public final class LiveAnalysis {
  /** Steps for each question about a rule; a step is one comparison of a box with another. */
  public static final long STEPS = 200_000;

  /** An update that takes away and brings more rules than these is quicker done from the start. */
  private static final int MOST_CHANGES = 200;

  private final long steps;
  private final LocalDate day;
  private Rulebase rulebase;
  private RuleIndex index;
  private Certificates certificates;
  private Views views;
  private ReachEstimates reaches;

  public LiveAnalysis(Rulebase rulebase) {
    this(rulebase, STEPS);
  }

  /**
   * @param steps budget for each question about a rule
   */
  public LiveAnalysis(Rulebase rulebase, long steps) {
    this(rulebase, steps, null);
  }

  /**
   * @param day today by the gateway's clock: only times from then on count; null for ever
   */
  public LiveAnalysis(Rulebase rulebase, LocalDate day) {
    this(rulebase, STEPS, day);
  }

  private LiveAnalysis(Rulebase rulebase, long steps, LocalDate day) {
    this.steps = steps;
    this.day = day;
    start(rulebase);
  }

  private void start(Rulebase next) {
    RuleIndex laidOut = new RuleIndex(next, day);
    Certificates fresh = new Certificates(laidOut, steps);
    rulebase = next;
    index = laidOut;
    certificates = fresh;
    views = new Views(maker());
    reaches = new ReachEstimates(index, certificates);
  }

  private View.Maker maker() {
    return new View.Maker(index, certificates, steps, rulebase.gatewaySettings().breadth());
  }

  public Rulebase rulebase() {
    return rulebase;
  }

  /** Today by the gateway's clock; null for ever. */
  public LocalDate day() {
    return day;
  }

  /** The rules as they are laid out here; changes with every update. */
  public RuleIndex index() {
    return index;
  }

  private int handle(String id) {
    int handle = index.handle(id);
    if (handle == RuleIndex.NONE) {
      throw new IllegalArgumentException("no rule has the id " + id);
    }
    return handle;
  }

  /** Works out all that may be asked about each rule, on several threads, before it is asked. */
  public void answerAll() {
    views.makeMissing();
    reaches.answerAll();
  }

  /** Where a rule stands, by its id. */
  public Standing standing(String id) {
    return views.of(handle(id)).standing();
  }

  /** Where every rule stands, by its id, in the rules' order. */
  public Map<String, Standing> standings() {
    views.makeMissing();
    Map<String, Standing> out = new LinkedHashMap<>();
    for (int i = 0; i < index.size(); i++) {
      int handle = index.handleAt(i);
      out.put(index.rule(handle).id(), views.of(handle).standing());
    }
    return out;
  }

  /** The findings about a rule, by its id. */
  public List<Finding> findings(String id) {
    return views.of(handle(id)).findings();
  }

  /** All findings, in the rules' order. */
  public List<Finding> findings() {
    int[] handles = IntStream.range(0, index.size()).map(index::handleAt).toArray();
    return views.findings(handles).toList();
  }

  /**
   * The other rules of a pair-wise finding.
   *
   * @param rules their ids, in the rules' order
   * @param complete whether these are all; if not, the budget left others open
   */
  public record Partners(List<String> rules, boolean complete) {}

  /**
   * All earlier rules with which a rule is correlated, or which it generalises.
   *
   * @param kind {@code CORRELATED} or {@code GENERALISED}
   */
  public Partners partners(String id, Finding.Kind kind) {
    if (kind != Finding.Kind.CORRELATED && kind != Finding.Kind.GENERALISED) {
      throw new IllegalArgumentException("no partners for " + kind);
    }
    PartnerHandles found = certificates.partners(handle(id), kind == Finding.Kind.GENERALISED);
    return new Partners(
        found.handles().stream().map(handle -> index.rule(handle).id()).toList(), found.complete());
  }

  /** The effect of moving a rule to every other place. */
  public Placement placement(String id) {
    return certificates.placement(handle(id));
  }

  /**
   * The share of a rule's match that no earlier rule takes. Exact at 0 and, where no earlier rule
   * touches the match, at 1; else from a sample that is smaller the more rules there are. It
   * follows from the rules as they are, not from how they came about.
   */
  public Reach reach(String id) {
    return reaches.of(handle(id));
  }

  /**
   * The rules that an update changed.
   *
   * @param answers ids of rules whose standing or findings changed
   * @param reaches ids of rules whose reach may have changed; in a small rulebase also of those
   *     whose sample changed with the classes of values
   */
  public record Changed(Set<String> answers, Set<String> reaches) {}

  /**
   * Updates the analysis to the next state of the rulebase. If that throws, this has the state
   * before.
   *
   * @param moved ids of rules whose place among the others may have changed
   */
  public Changed update(Rulebase next, Set<String> moved) {
    Rulebase before = rulebase;
    try {
      return updated(next, moved);
    } catch (RuntimeException | StackOverflowError e) {
      boolean interrupted = Thread.interrupted();
      start(before); // whatever was taken over half way
      if (interrupted) {
        Thread.currentThread().interrupt();
      }
      throw e;
    }
  }

  private Changed updated(Rulebase next, Set<String> moved) {
    views.makeMissing(); // the views before the update, to compare with those after it
    if (!next.gatewaySettings().breadth().equals(rulebase.gatewaySettings().breadth())) {
      return startAgain(next);
    }
    if (!next.tellsApartAsIn(rulebase)) {
      return updateNames(next, moved);
    }
    Optional<RuleIndex.Change> possible = change(next(next, moved));
    if (possible.isEmpty()) {
      return startAgain(next);
    }
    RuleIndex.Change change = possible.get();
    rulebase = next;
    List<IndexChange> events = IndexChange.of(change, index);
    BitSet asked = certificates.update(change, events);
    AffectedRules affected = new AffectedRules(index, change, events);
    affected.addViews(asked, views);
    Set<Integer> met = affected.reach();
    Set<String> reachable = ids(met);
    reachable.addAll(ids(reaches.update(change, met)));
    Set<String> changed = views.remake(asked.stream().toArray(), change.gone().keySet());
    return new Changed(changed, reachable);
  }

  /** The next state of the rules for the order; its addresses and services may be others. */
  private RuleIndex.Next next(Rulebase next, Set<String> moved) {
    if (next.namesMeanAsIn(rulebase)) {
      return index.next(next.rules(), moved);
    }
    return next(next.rules(), moved, new Resolution(next, index.resolution()));
  }

  private RuleIndex.Next next(List<Rule> rules, Set<String> moved, Resolution names) {
    return new RuleIndex.Next(rules, moved, names, names.sayingOthers(rules, index.resolution()));
  }

  /**
   * Updates the index to the next state of the rules.
   *
   * @return empty if that is quicker done from the start
   */
  private Optional<RuleIndex.Change> change(RuleIndex.Next next) {
    Optional<RuleIndex.Change> change = index.update(next);
    if (change.isEmpty() && changed(next.rules()) + next.others().size() <= MOST_CHANGES) {
      change = updateWithMoreRoom(next);
    }
    return change.filter(made -> made.gone().size() + made.fresh().size() <= MOST_CHANGES);
  }

  /** Lays the rules out anew, with room for the classes of the next state. */
  private Optional<RuleIndex.Change> updateWithMoreRoom(RuleIndex.Next next) {
    return index
        .relayout(next)
        .flatMap(
            relayout -> {
              move(relayout);
              return index.update(next);
            });
  }

  /** The number of rules that are new or changed; O(rules). */
  private long changed(List<Rule> next) {
    return next.stream()
        .filter(
            rule ->
                index.handle(rule.id()) == RuleIndex.NONE || index.rule(handle(rule.id())) != rule)
        .count();
  }

  /** Continues with the same rules laid out anew. */
  void move(RuleIndex.Relayout relayout) {
    CertificateTranslation move = new CertificateTranslation(index, relayout);
    index = move.to();
    certificates = new Certificates(certificates, move, steps);
    views = views.moved(move, maker());
    reaches = new ReachEstimates(reaches, move, certificates);
  }

  private Changed startAgain(Rulebase next) {
    Map<String, View> before = views.byId();
    start(next);
    return told(before);
  }

  /** Updates to a state in which rules or objects contain other names. */
  private Changed updateNames(Rulebase next, Set<String> moved) {
    Map<String, View> before = views.byId();
    boolean few = next.hasSourcesOf(rulebase) && changed(next.rules()) <= MOST_CHANGES;
    Optional<Set<String>> reachable = few ? follow(next, moved) : Optional.empty();
    if (reachable.isEmpty()) {
      start(next);
    }
    Changed changed = told(before);
    return reachable.isEmpty() || ReachEstimates.areFew(index)
        ? changed
        : new Changed(changed.answers(), reachable.get());
  }

  /**
   * Follows an edit that mentions other hosts, times or device states: splits classes for the old
   * and the new terms, replaces the rules, and merges classes that are no longer needed. Drops
   * views that may have changed.
   *
   * @param next with the same sources
   * @return ids of rules whose reach may have changed; empty if this was not possible, in which
   *     case part of the update may be applied
   */
  Optional<Set<String>> follow(Rulebase next, Set<String> moved) {
    Rulebase was = next; // the rules that there are, telling apart also what is to be said
    Rulebase is = next; // the rules after the edit, with the classes of both
    try {
      if (!next.hasObjectsOf(rulebase)) {
        was = rulebase.tellingApart(next);
        is = next.tellingApart(rulebase);
      } else if (rulebase.saysAllOf(next)) {
        was = rulebase;
      } else if (!next.saysAllOf(rulebase)) {
        was = next.tellingApart(rulebase);
      }
    } catch (InvalidModel e) {
      return Optional.empty(); // too much to tell apart at once
    }
    reaches = new ReachEstimates(index, certificates); // since values may stand in another order
    if (was != rulebase && !moveIn(was)) {
      return Optional.empty();
    }
    Resolution names = is == next ? index.resolution() : new Resolution(is, index.resolution());
    if (!names.tellsApartAsIn(index.resolution())) {
      return Optional.empty();
    }
    Optional<RuleIndex.Change> possible = change(next(next.rules(), moved, names));
    if (possible.isEmpty()) {
      return Optional.empty();
    }
    RuleIndex.Change change = possible.get();
    List<IndexChange> events = IndexChange.of(change, index);
    BitSet asked = certificates.update(change, events);
    AffectedRules affected = new AffectedRules(index, change, events);
    affected.addViews(asked, views);
    Set<String> reachable = ids(affected.reach());
    asked.stream().forEach(views::remove);
    change.gone().keySet().forEach(views::remove);
    if ((was != next || is != next) && !moveIn(next)) {
      return Optional.empty();
    }
    certificates.askNeeds().stream().forEach(views::remove);
    rulebase = next;
    return Optional.of(reachable);
  }

  /**
   * Lays the rules out where names are those of another rulebase.
   *
   * @return whether that is possible
   */
  private boolean moveIn(Rulebase names) {
    RuleIndex before = index;
    Optional<RuleIndex.Relayout> possible = before.in(names);
    if (possible.isEmpty()) {
      return false;
    }
    RuleIndex.Relayout relayout = possible.get();
    move(relayout);
    views = views.keeping(view -> view.witnesses().allMatch(w -> isSame(w, before, relayout)));
    return true;
  }

  /** Whether a connection is still one of those that it stood for, and at a time that counts. */
  private static boolean isSame(
      Connection connection, RuleIndex before, RuleIndex.Relayout relayout) {
    int[] was = before.space().point(connection);
    int[] is = relayout.index().space().point(connection);
    return was != null
        && is != null
        && Arrays.equals(relayout.points().apply(was), is)
        && relayout.index().resolution().counts(connection);
  }

  private Set<String> ids(Set<Integer> handles) {
    Set<String> out = new LinkedHashSet<>();
    handles.forEach(handle -> out.add(index.rule(handle).id()));
    return out;
  }

  /** The changed rules, where all rules may have another reach. */
  private Changed told(Map<String, View> before) {
    Set<String> all = new LinkedHashSet<>();
    rulebase.rules().forEach(rule -> all.add(rule.id()));
    return new Changed(views.makeMissing(before), all);
  }
}
