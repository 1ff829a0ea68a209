package dev.ironsieve.server.overview;

import dev.ironsieve.core.checks.CheckResult;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.server.accepted.AcceptedFindings;
import dev.ironsieve.server.draft.DraftQuestions;
import dev.ironsieve.server.draft.DraftState;
import dev.ironsieve.server.draft.Drafts;
import dev.ironsieve.server.gateway.GatewaySummary;
import dev.ironsieve.server.gateway.Gateways;
import dev.ironsieve.server.log.Logs;
import dev.ironsieve.server.log.RuleHits;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;

/** Collects the overview of a rulebase from its draft, gateways and hits. */
@ApplicationScoped
class Overviews {
  private final Drafts drafts;
  private final DraftQuestions questions;
  private final AcceptedFindings findings;
  private final Gateways gateways;
  private final Logs logs;

  Overviews(
      Drafts drafts,
      DraftQuestions questions,
      AcceptedFindings findings,
      Gateways gateways,
      Logs logs) {
    this.drafts = drafts;
    this.questions = questions;
    this.findings = findings;
    this.gateways = gateways;
    this.logs = logs;
  }

  Overview of(long rulebase) {
    DraftState draft = drafts.state(rulebase);
    List<CheckResult> checks = questions.checks(rulebase);
    Map<String, Integer> states = new TreeMap<>();
    for (GatewaySummary gateway : gateways.all(rulebase)) {
      if (!gateway.state().equals("revoked")) {
        states.merge(gateway.state(), 1, Integer::sum);
      }
    }
    Map<String, Rule> rules =
        draft.rulebase().rules().stream().collect(Collectors.toMap(Rule::id, Function.identity()));
    Long[] decided = new Long[RuleHits.HOURS];
    Arrays.fill(decided, 0L);
    Long[] refused = decided.clone();
    for (RuleHits hits : logs.hits(rulebase)) {
      Rule rule = hits.rule() == null ? null : rules.get(hits.rule());
      boolean refuses = hits.rule() == null || rule != null && !rule.verdict().letsThrough();
      for (int hour = 0; hour < RuleHits.HOURS; hour++) {
        decided[hour] += hits.hours().get(hour);
        refused[hour] += refuses ? hits.hours().get(hour) : 0;
      }
    }
    return new Overview(
        draft.revision(),
        draft.changes(),
        checks.size(),
        (int) checks.stream().filter(check -> !check.holds()).count(),
        findings.severities(rulebase),
        states,
        List.of(decided),
        List.of(refused));
  }
}
