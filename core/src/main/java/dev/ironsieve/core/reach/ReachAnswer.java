package dev.ironsieve.core.reach;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.sets.IntSet;
import java.util.List;

/**
 * The rules that decide the connections of a reach question, in order, the default rule last.
 *
 * @param deciders those that decide at least one of them
 * @param complete whether these are all, each with all its values; if not, the budget ran out
 */
public record ReachAnswer(List<Decider> deciders, boolean complete) {

  /**
   * One rule that decides some of the connections.
   *
   * @param rule the rule, or null for the default rule
   * @param codes the codes, on the axis that was asked about, of every value for which it decides
   *     some connection of the question
   * @param values the same in words, with a count where there are many
   * @param witness one connection that it decides
   */
  public record Decider(Rule rule, IntSet codes, String values, Connection witness) {
    public Verdict verdict() {
      return DefaultRule.verdict(rule);
    }

    /** The same with another witness. */
    public Decider showing(Connection other) {
      return new Decider(rule, codes, values, other);
    }
  }

  public ReachAnswer {
    deciders = List.copyOf(deciders);
  }
}
