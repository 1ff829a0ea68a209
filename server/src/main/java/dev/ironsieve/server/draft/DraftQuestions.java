package dev.ironsieve.server.draft;

import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.checks.CheckResult;
import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.matcher.PossibleDecisions;
import dev.ironsieve.core.matcher.Trace;
import dev.ironsieve.core.matcher.VerdictChange;
import dev.ironsieve.core.matcher.WitnessShortener;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.reach.ReachAnswer;
import dev.ironsieve.core.reach.ReachQuestion;
import dev.ironsieve.core.repair.Repairs;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.core.text.TermCompletion;
import dev.ironsieve.server.question.QuestionPool;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;

/**
 * Answers questions about drafts. Each sees one version of its draft, and is answered by a pool
 * that edits do not wait for.
 */
@ApplicationScoped
public class DraftQuestions {
  private static final int MOST_UNLESS = 40; // other decisions that an answer lists

  private static final int MOST_PASSED = 20; // rules above with their reasons
  private static final int MOST_CHANGES = 4; // of rules above the one that decides

  private final LiveDrafts live;
  private final QuestionPool pool;
  private final ProbeFill fill;
  private final DraftDocuments documents;

  DraftQuestions(LiveDrafts live, QuestionPool pool, ProbeFill fill, DraftDocuments documents) {
    this.live = live;
    this.pool = pool;
    this.fill = fill;
    this.documents = documents;
  }

  /** Asks the draft's analysis a question. */
  private <T> T ask(long id, Function<QuestionIndex.Asked, T> question) {
    LiveDraft draft = live.get(id);
    return pool.ask(() -> draft.questions().ask(question));
  }

  /** A draft with its analysis, of one version. */
  public record Analysed(DraftState draft, LiveAnalysis analysis) {
    /** Asks the index of the analysis, or a new one if that has no room for the question. */
    <T> T withRoom(Function<RuleIndex, T> question) {
      try {
        return question.apply(analysis.index());
      } catch (IllegalStateException e) { // no room left
        return question.apply(new RuleIndex(draft.rulebase()));
      }
    }
  }

  /**
   * Asks a question that needs the draft and its analysis.
   *
   * @param question must neither keep the analysis nor change it
   */
  public <T> T askAnalysed(long id, Function<Analysed, T> question) {
    LiveDraft live = this.live.get(id);
    Function<QuestionIndex.Asked, T> ofState =
        asked -> {
          LiveDraft.State state = asked.state();
          DraftState draft =
              new DraftState(live.revision(), state.version(), state.changes(), state.rulebase());
          return question.apply(new Analysed(draft, asked.analysis()));
        };
    return pool.ask(() -> live.questions().ask(ofState));
  }

  /** Asks a question that needs the draft's rulebase only. */
  public <T> T askRulebase(long id, Function<Rulebase, T> question) {
    Rulebase rulebase = live.get(id).state().rulebase();
    return pool.ask(() -> question.apply(rulebase));
  }

  /**
   * The whole draft, as a view needs it first, as JSON; all views of one version get the same
   * bytes.
   */
  DraftDocuments.Encoded document(long id) {
    LiveDraft draft = live.get(id);
    DraftDocuments.Encoded answer =
        documents.of(
            draft, () -> pool.ask(() -> draft.questions().ask(asked -> document(draft, asked))));
    draft.expectEdits();
    return answer;
  }

  private static DraftDocument document(LiveDraft draft, QuestionIndex.Asked asked) {
    LiveDraft.State state = asked.state();
    return DraftDocument.of(
        new DraftDocument.Source(
            draft.id(), draft.name(), draft.revision(), state.version(), state.changes()),
        asked.analysis(),
        state.analysisMillis());
  }

  /** The number of values of each named set, by the word of its coordinate and by its name. */
  Map<String, Map<String, Integer>> termSizes(long id) {
    Map<String, Map<String, Integer>> out = new LinkedHashMap<>();
    for (Vocabulary vocabulary : live.get(id).state().rulebase().named()) {
      Map<String, Integer> sizes = new LinkedHashMap<>();
      vocabulary.terms().forEach(term -> sizes.put(term.name(), (int) term.members().size()));
      out.put(vocabulary.coordinate().word(), sizes);
    }
    return out;
  }

  /** The results of the draft's checks. */
  public List<CheckResult> checks(long id) {
    return ask(
        id,
        asked ->
            asked.state().rulebase().checks().isEmpty()
                ? List.of()
                : CheckResult.of(asked.state().rulebase(), asked.analysis().index()));
  }

  /** The repairs of a rule's findings, by the kind of the finding. */
  List<RepairDocument> repairs(long id, String rule, String kind) {
    return ask(
        id,
        asked ->
            asked.analysis().index().handle(rule) == RuleIndex.NONE
                ? List.of()
                : asked.analysis().findings(rule).stream()
                    .filter(finding -> finding.kind().word().equals(kind))
                    .flatMap(finding -> Repairs.of(finding, asked.analysis()).stream())
                    .map(repair -> RepairDocument.of(repair, asked.state().rulebase()))
                    .toList());
  }

  /**
   * The effect of moving a rule to every other place.
   *
   * @throws Refusal.NotFound if there is no such rule
   */
  PlacementDocument placement(long id, String rule) {
    return ask(
        id,
        asked -> {
          handle(rule, asked);
          return PlacementDocument.of(rule, asked.state().version(), asked.analysis());
        });
  }

  private static int handle(String rule, QuestionIndex.Asked asked) {
    int handle = asked.analysis().index().handle(rule);
    if (handle == RuleIndex.NONE) {
      throw new Refusal.NotFound("There is no rule with the id \"" + rule + "\" here.");
    }
    return handle;
  }

  /**
   * What two rules share, and what each matches alone.
   *
   * @throws Refusal.NotFound if there is no such rule
   */
  RulePairDocument pair(long id, String rule, String other) {
    return ask(
        id,
        asked ->
            RulePairDocument.of(
                asked.analysis().index(), handle(rule, asked), handle(other, asked)));
  }

  /** Completions of a typed text: names of some coordinates, best first. */
  List<TermOption> terms(long id, Set<Coordinate> coordinates, String text, int most) {
    List<Vocabulary> vocabularies =
        live.get(id).state().rulebase().named().stream()
            .filter(vocabulary -> coordinates.contains(vocabulary.coordinate()))
            .toList();
    return TermCompletion.of(vocabularies, text, most).stream().map(TermOption::of).toList();
  }

  /** The draft's decision on a connection. */
  ProbeAnswer probe(long id, String line) {
    return ask(id, asked -> probe(asked, line));
  }

  private ProbeAnswer probe(QuestionIndex.Asked asked, String line) {
    Rulebase rulebase = asked.state().rulebase();
    Connection said = ConnectionLine.parse(line, rulebase);
    ProbeFill.Filled filled = fill.fill(said, rulebase);
    Connection connection = filled.connection();
    Matcher matcher = matcher(asked, connection);
    Trace trace = matcher.trace(connection);
    int above = trace.passed().size();
    List<ProbeAnswer.Passed> passed =
        trace.passed().subList(Math.max(0, above - MOST_PASSED), above).stream()
            .map(
                p ->
                    new ProbeAnswer.Passed(
                        p.rule().id(),
                        p.turnedAwayBy().stream().map(DraftQuestions::part).toList()))
            .toList();
    PossibleDecisions possible = matcher.possible(connection, Matcher.STEPS);
    return new ProbeAnswer(
        asked.state().version(),
        ConnectionLine.format(connection),
        DefaultRule.verdict(trace.decided()).word(),
        trace.decided() == null ? null : trace.decided().id(),
        possible.decisions().isEmpty() || possible.certain().isPresent(),
        possible.decisions().stream()
            .filter(decision -> decision.rule() != trace.decided())
            .limit(MOST_UNLESS)
            .map(DraftQuestions::unless)
            .toList(),
        possible.complete() && possible.decisions().size() <= MOST_UNLESS,
        ProbeAnswer.Handled.of(trace.decided()),
        above,
        passed,
        matcher.stages(connection).stream().map(ProbeAnswer.AtStage::of).toList(),
        matcher.changes(connection, trace, MOST_CHANGES).stream()
            .map(DraftQuestions::change)
            .toList(),
        remarks(filled, rulebase));
  }

  /** Times that are over do not count in the analysis, but one can still ask about them. */
  private static Matcher matcher(QuestionIndex.Asked asked, Connection connection) {
    RuleIndex index = asked.analysis().index();
    return index.resolution().counts(connection)
        ? new Matcher(index)
        : new Matcher(asked.state().rulebase());
  }

  private static ProbeAnswer.NearestChange change(VerdictChange change) {
    return new ProbeAnswer.NearestChange(
        change.kind().name().toLowerCase(Locale.ROOT).replace('_', ' '),
        change.rule().id(),
        change.criterion() == null ? null : part(change.criterion()),
        change.verdict().word(),
        change.decides() == null ? null : change.decides().id());
  }

  private static ProbeAnswer.Unless unless(PossibleDecisions.Decision decision) {
    return new ProbeAnswer.Unless(
        decision.verdict().word(),
        decision.rule() == null ? null : decision.rule().id(),
        decision.dependsOn().stream().map(DraftQuestions::part).toList(),
        ConnectionLine.format(decision.witness()));
  }

  /**
   * The rules of the draft that decide the connections of a pattern, each with the shortest
   * connection that it decides.
   *
   * @param axis the axis whose values are listed
   */
  ReachAnswer reach(long id, Rule pattern, int axis) {
    return ask(id, asked -> reach(asked, pattern, axis));
  }

  private static ReachAnswer reach(QuestionIndex.Asked asked, Rule pattern, int axis) {
    RuleIndex live = asked.analysis().index();
    boolean fits = live.space().region(live.resolution().match(pattern)).isPresent();
    RuleIndex index = fits ? live : new RuleIndex(asked.state().rulebase());
    ReachAnswer answer = ReachQuestion.ask(index, pattern, axis, ReachQuestion.STEPS);
    return new ReachAnswer(
        answer.deciders().stream()
            .map(
                found ->
                    found.showing(
                        WitnessShortener.deciding(
                            found.witness(), pattern.terms().keySet(), index)))
            .toList(),
        answer.complete());
  }

  private static String part(Trace.CriterionName part) {
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
    remark(connection.from(), rulebase, out);
    remark(connection.to(), rulebase, out);
    out.addAll(SetMemberships.of(connection, rulebase));
    return out;
  }

  private static void remark(Connection.Endpoint end, Rulebase rulebase, List<String> out) {
    for (Zone zone : rulebase.zones()) {
      if (zone.name().equals(end.zone())
          && end.address() != null
          && !zone.networks().isEmpty()
          && zone.networks().stream().noneMatch(n -> n.contains(end.address()))) {
        out.add(end.address() + " is outside the networks of " + zone.name() + ".");
      }
    }
  }
}
