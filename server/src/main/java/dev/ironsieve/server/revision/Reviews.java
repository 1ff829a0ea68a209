package dev.ironsieve.server.revision;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.ironsieve.core.analysis.Finding;
import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.checks.CheckResult;
import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.difference.SharedValues;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.server.draft.DraftState;
import dev.ironsieve.server.draft.EditionEffect;
import dev.ironsieve.server.draft.FindingDocument;
import dev.ironsieve.server.draft.RecordedConnections;
import jakarta.enterprise.context.ApplicationScoped;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** Compares two states of a rulebase in meaning. */
@ApplicationScoped
class Reviews {
  /** How far back recorded connections are looked at. */
  private static final Duration RECORDED = Duration.ofDays(7);

  private static final int MOST_RECORDED = 50_000;

  /** Most revisions whose findings are kept. */
  private static final int MOST_KEPT = 10;

  /**
   * @param day as of which it is analysed
   */
  private record Revision(long rulebase, int number, LocalDate day) {}

  private final Cache<Revision, Map<String, ReviewDocument.RuleFinding>> ofRevisions =
      Caffeine.newBuilder().maximumSize(MOST_KEPT).build();
  private final PublishConfig config;
  private final RecordedConnections recorded;

  Reviews(PublishConfig config, RecordedConnections recorded) {
    this.config = config;
    this.recorded = recorded;
  }

  /**
   * A draft against the revision that is in force, with what stops it from being published.
   *
   * @param analysis of the draft
   * @param accepted the findings that stop nothing, each as the id of its rule and its kind
   */
  ReviewDocument review(
      long rulebase,
      int revision,
      Rulebase before,
      DraftState draft,
      LiveAnalysis analysis,
      Set<String> accepted) {
    ReviewDocument compared = compare(rulebase, revision, before, draft.rulebase(), analysis);
    List<ReviewDocument.RuleFinding> open =
        compared.newFindings().stream()
            .filter(one -> !accepted.contains(one.rule() + " " + one.finding().kind()))
            .toList();
    List<ReviewDocument.Blocker> blockers = blockers(draft.rulebase(), analysis, open);
    return compared.of(draft.version(), blockers);
  }

  /**
   * Analyses a revision, before questions about the draft wait for a review against it.
   *
   * @return how many findings it has
   */
  int expect(long rulebase, int revision, Rulebase content) {
    return findings(rulebase, revision, content).size();
  }

  /** The same without an analysis at hand. */
  ReviewDocument review(long rulebase, int revision, Rulebase before, DraftState draft) {
    return review(rulebase, revision, before, draft, analysis(draft.rulebase()), Set.of());
  }

  /** Two states, of which the earlier is a revision. */
  ReviewDocument compare(long rulebase, int revision, Rulebase before, Rulebase after) {
    return compare(rulebase, revision, before, after, analysis(after));
  }

  private static LiveAnalysis analysis(Rulebase rulebase) {
    return new LiveAnalysis(rulebase, today(rulebase));
  }

  private static LocalDate today(Rulebase rulebase) {
    return LocalDate.now(rulebase.gatewaySettings().timeZone());
  }

  private ReviewDocument compare(
      long rulebase, int revision, Rulebase before, Rulebase after, LiveAnalysis analysis) {
    Optional<SharedValues> shared = SharedValues.of(before, after);
    Optional<Difference> difference =
        shared.map(
            both -> both.after() == after ? difference(before, after, analysis) : difference(both));
    List<Connection> connections =
        difference.isPresent() && !difference.get().parts().isEmpty()
            ? recorded.since(rulebase, Instant.now().minus(RECORDED), MOST_RECORDED)
            : List.of();
    Map<String, ReviewDocument.RuleFinding> old = findings(rulebase, revision, before);
    Map<String, Finding> now = byKey(analysis);
    return new ReviewDocument(
        revision,
        null,
        difference
            .map(found -> verdicts(found, new RecordedEffect(found, connections), before, after))
            .orElse(List.of()),
        connections.size(),
        difference.map(Difference::complete).orElse(false),
        difference.isPresent()
            ? null
            : "The zones or the time zone differ, so the two have no connections in common.",
        difference.isPresent()
            ? CheckResult.flips(shared.get().before(), shared.get().after(), difference.get())
                .stream()
                .map(EditionEffect.CheckFlip::of)
                .toList()
            : List.of(),
        newFindings(old, now, analysis),
        goneFindings(old, now),
        ChangedSettings.of(before, after),
        editions(before, after),
        TextDifference.of(before, after),
        List.of());
  }

  /** The difference, laid out where the later state is already. */
  private static Difference difference(Rulebase before, Rulebase after, LiveAnalysis analysis) {
    Optional<RuleIndex> earlier =
        before.namesMeanAsIn(after) ? analysis.index().with(before.rules()) : Optional.empty();
    return earlier
        .map(
            index ->
                Differences.between(
                    index, analysis.index().snapshot(), Aspect.VERDICT, Differences.STEPS))
        .orElseGet(() -> Differences.between(before, after, Aspect.VERDICT));
  }

  private static Difference difference(SharedValues both) {
    return Differences.between(both.before(), both.after(), Aspect.VERDICT);
  }

  /** The changed verdicts, those of one cause together, in the order of their first. */
  private static List<ReviewDocument.ChangedVerdict> verdicts(
      Difference difference, RecordedEffect recorded, Rulebase before, Rulebase after) {
    Map<String, Rule> old = byId(before);
    Map<String, Rule> now = byId(after);
    Map<String, List<ReviewDocument.ChangedVerdict>> byCause = new LinkedHashMap<>();
    List<EditionEffect.VerdictEffect> effects = EditionEffect.verdicts(difference);
    for (int i = 0; i < effects.size(); i++) {
      EditionEffect.VerdictEffect effect = effects.get(i);
      Difference.ChangedBox part = difference.parts().get(i);
      Rule was = effect.beforeRule() == null ? null : old.get(effect.beforeRule());
      Rule is = effect.afterRule() == null ? null : now.get(effect.afterRule());
      boolean byEarlier = was != null && !was.equals(now.get(was.id())) && isSame(is, old);
      Rule cause = byEarlier || is == null ? was : is;
      byCause
          .computeIfAbsent(cause == null ? "" : cause.id(), id -> new ArrayList<>())
          .add(
              new ReviewDocument.ChangedVerdict(
                  effect,
                  cause == null ? null : cause.id(),
                  cause == null ? null : cause.name(),
                  recorded.count(part),
                  recorded.people(part)));
    }
    return byCause.values().stream().flatMap(List::stream).toList();
  }

  private static boolean isSame(Rule rule, Map<String, Rule> others) {
    return rule == null || rule.equals(others.get(rule.id()));
  }

  private static Map<String, Rule> byId(Rulebase rulebase) {
    return rulebase.rules().stream().collect(Collectors.toMap(Rule::id, rule -> rule));
  }

  /** Those of a revision, which never changes, and are kept for the next review against it. */
  private Map<String, ReviewDocument.RuleFinding> findings(
      long rulebase, int revision, Rulebase content) {
    return ofRevisions.get(
        new Revision(rulebase, revision, today(content)),
        key -> {
          LiveAnalysis analysis = analysis(content);
          Map<String, ReviewDocument.RuleFinding> out = new LinkedHashMap<>();
          byKey(analysis).forEach((of, finding) -> out.put(of, said(finding, analysis)));
          return out;
        });
  }

  /** The findings of a rulebase, by the rule and the kind. */
  private static Map<String, Finding> byKey(LiveAnalysis analysis) {
    Map<String, Finding> out = new LinkedHashMap<>();
    for (Finding finding : analysis.findings()) {
      out.put(finding.rule() + " " + finding.kind(), finding);
    }
    return out;
  }

  private static ReviewDocument.RuleFinding said(Finding finding, LiveAnalysis analysis) {
    Rule rule = analysis.index().rule(analysis.index().handle(finding.rule()));
    return new ReviewDocument.RuleFinding(
        rule.id(), rule.name(), FindingDocument.of(finding, analysis));
  }

  private static List<ReviewDocument.RuleFinding> newFindings(
      Map<String, ?> old, Map<String, Finding> now, LiveAnalysis analysis) {
    return now.entrySet().stream()
        .filter(one -> !old.containsKey(one.getKey()))
        .map(one -> said(one.getValue(), analysis))
        .toList();
  }

  private static List<ReviewDocument.RuleFinding> goneFindings(
      Map<String, ReviewDocument.RuleFinding> old, Map<String, Finding> now) {
    return old.entrySet().stream()
        .filter(one -> !now.containsKey(one.getKey()))
        .map(Map.Entry::getValue)
        .toList();
  }

  private static List<ReviewDocument.ChangedEdition> editions(Rulebase before, Rulebase after) {
    Map<String, String> old = editions(before);
    Map<String, String> now = editions(after);
    Set<String> all = new HashSet<>(old.keySet());
    all.addAll(now.keySet());
    return all.stream()
        .sorted()
        .filter(of -> !Objects.equals(old.get(of), now.get(of)))
        .map(of -> new ReviewDocument.ChangedEdition(of, old.get(of), now.get(of)))
        .toList();
  }

  private static Map<String, String> editions(Rulebase rulebase) {
    Map<String, String> out = new LinkedHashMap<>();
    rulebase.pinned().forEach(v -> out.put(v.coordinate().word(), v.edition()));
    rulebase.feeds().forEach(feed -> out.put(feed.name(), feed.edition()));
    return out;
  }

  private static ReviewDocument.Blocker failed(CheckResult result, Rulebase after) {
    String name = result.check().name();
    CheckResult.LockedOut lockedOut = result.lockedOut();
    if (lockedOut == null) {
      String what = result.check().protectedConnection() ? "protected connection" : "check";
      return new ReviewDocument.Blocker(
          "check", "The %s \"%s\" fails.".formatted(what, name), null);
    }
    String by =
        lockedOut.rule() == null
            ? "the default rule"
            : '"' + byId(after).get(lockedOut.rule()).name() + '"';
    String text =
        "The protected connection \"%s\" would not get through while the directory is away: %s decides it."
            .formatted(name, by);
    return new ReviewDocument.Blocker("lock-out", text, lockedOut.rule());
  }

  /**
   * What stops the second of two states from being published.
   *
   * @param before a revision
   */
  List<ReviewDocument.Blocker> blockers(
      long rulebase, int revision, Rulebase before, Rulebase after) {
    LiveAnalysis analysis = analysis(after);
    return blockers(
        after,
        analysis,
        newFindings(findings(rulebase, revision, before), byKey(analysis), analysis));
  }

  private List<ReviewDocument.Blocker> blockers(
      Rulebase after, LiveAnalysis analysis, List<ReviewDocument.RuleFinding> newFindings) {
    List<ReviewDocument.Blocker> out = new ArrayList<>();
    for (CheckResult result : CheckResult.of(after, analysis.index())) {
      if (!result.holds()) {
        out.add(failed(result, after));
      }
    }
    for (ReviewDocument.RuleFinding found : newFindings) {
      Finding.Severity severity = FindingDocument.severity(found.finding());
      if (severity.compareTo(config.blockingSeverity()) >= 0) {
        String text =
            "\"%s\" is %s.".formatted(found.name(), found.finding().kind().replace('-', ' '));
        out.add(new ReviewDocument.Blocker("finding", text, found.rule()));
      }
    }
    return out;
  }
}
