package dev.ironsieve.server.draft;

import dev.ironsieve.core.analysis.Finding;
import dev.ironsieve.core.checks.CheckResult;
import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.repair.Repairs;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.text.ConnectionLine;
import jakarta.enterprise.context.ApplicationScoped;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;

/** Narrows a rule that is too broad to its use in the log and in checks. */
@ApplicationScoped
class NarrowingQuestion {
  private static final Duration AGE = Duration.ofDays(30);
  private static final int MOST_RECORDED = 20_000;

  private final DraftQuestions questions;
  private final RecordedConnections recorded;

  NarrowingQuestion(DraftQuestions questions, RecordedConnections recorded) {
    this.questions = questions;
    this.recorded = recorded;
  }

  /** The repairs; none if nothing used the rule, or it is not too broad. */
  List<RepairDocument> repairs(long id, String rule) {
    List<Connection> logged = recorded.since(id, Instant.now().minus(AGE), MOST_RECORDED);
    return questions.askAnalysed(
        id,
        asked -> {
          Rulebase rulebase = asked.draft().rulebase();
          List<Connection> seen = seen(logged, rule, rulebase, asked.analysis().index());
          return asked.analysis().findings(rule).stream()
              .filter(finding -> finding.kind() == Finding.Kind.TOO_BROAD)
              .flatMap(finding -> Repairs.narrowing(finding, asked.analysis(), seen).stream())
              .map(repair -> RepairDocument.of(repair, rulebase))
              .toList();
        });
  }

  /** The recorded and the checked connections that a rule decides. */
  private static List<Connection> seen(
      List<Connection> logged, String rule, Rulebase rulebase, RuleIndex index) {
    Matcher matcher = new Matcher(index);
    List<Connection> seen = new ArrayList<>();
    for (Connection connection : logged) {
      matcher
          .decide(matcher.named(connection))
          .filter(decides -> decides.id().equals(rule))
          .ifPresent(decides -> seen.add(connection));
    }
    for (CheckResult result : CheckResult.of(rulebase, index)) {
      if (rule.equals(result.rule()) && result.holds() && !result.check().isSet()) {
        seen.add(ConnectionLine.parse(result.check().connection(), rulebase, index.resolution()));
      }
    }
    return seen;
  }
}
