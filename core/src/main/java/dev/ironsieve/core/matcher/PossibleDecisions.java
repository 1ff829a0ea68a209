package dev.ironsieve.core.matcher;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * The rules that can decide an incomplete connection, which stands for all of its feasible
 * completions.
 *
 * @param decisions the rules that decide at least one of them, in the rules' order; none if no
 *     feasible connection agrees
 * @param complete whether these are all; if not, the work limit was reached
 */
public record PossibleDecisions(List<Decision> decisions, boolean complete) {

  /**
   * One rule that decides some of the connections.
   *
   * @param rule null for the default rule
   * @param dependsOn the unsaid parts of the connection that this rule asks for
   * @param witness a complete connection that it decides and that agrees with the incomplete one
   */
  public record Decision(Rule rule, Set<Trace.CriterionName> dependsOn, Connection witness) {
    public Verdict verdict() {
      return DefaultRule.verdict(rule);
    }
  }

  public PossibleDecisions {
    decisions = List.copyOf(decisions);
  }

  /** The verdict that all of the connections get, if it is proven that it is the same for all. */
  public Optional<Verdict> certain() {
    Set<Verdict> verdicts = decisions.stream().map(Decision::verdict).collect(Collectors.toSet());
    return complete && verdicts.size() == 1
        ? Optional.of(verdicts.iterator().next())
        : Optional.empty();
  }

  /** Whether one rule, or the default rule, decides all of the connections. */
  public boolean isByOneRule() {
    return complete && decisions.size() == 1;
  }
}
