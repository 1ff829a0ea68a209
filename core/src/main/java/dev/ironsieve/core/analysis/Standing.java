package dev.ironsieve.core.analysis;

import dev.ironsieve.core.model.Connection;
import java.util.List;

/** Where one rule stands in the order: whether anything still gets to it. */
public sealed interface Standing {
  /**
   * It decides at least one feasible connection.
   *
   * @param witness one that it decides
   */
  record Decides(Connection witness) implements Standing {}

  /**
   * The earlier rules together take all of its match.
   *
   * @param kind whether one of them gives another verdict
   * @param causes ids of rules that together take all of it, in the rules' order
   * @param minimality whether without any one of them it would decide something, and whether fewer
   *     rules could take all of it
   * @param witness a connection that it matches: for {@code SHADOWED} one that gets another verdict
   * @param decidedBy id of the rule that decides the witness
   */
  record Covered(
      Kind kind, List<String> causes, Minimality minimality, Connection witness, String decidedBy)
      implements Standing {
    /** Whether it is proven that no smaller set of rules takes all of it. */
    public boolean smallest() {
      return minimality == Minimality.SMALLEST;
    }
  }

  /** No feasible connection meets its criteria. */
  record Empty() implements Standing {}

  /** It is disabled. */
  record PassedOver() implements Standing {}

  /**
   * The budget ran out before it was settled.
   *
   * @param question the open question
   * @param steps the budget
   */
  record Undecided(String question, long steps) implements Standing {}

  /** The decisions of the rules that cover a rule. */
  enum Kind {
    /** Some of its match gets another verdict. */
    SHADOWED,
    /** All of its match gets the same verdict from the rules above. */
    REDUNDANT_ABOVE
  }
}
