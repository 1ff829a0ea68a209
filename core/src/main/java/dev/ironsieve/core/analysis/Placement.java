package dev.ironsieve.core.analysis;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Verdict;
import java.util.List;

/**
 * The effect of moving one rule to every other place in the order. Places are counted among the
 * other rules: at place 0 it stands above all of them, at place n below the n-th.
 *
 * @param rule id of the rule
 * @param place where it stands now
 * @param places one more than the number of other rules
 * @param blocking rules what it cannot pass without changing a verdict, by position among the other
 *     rules
 * @param complete whether these are all; if not, the budget of work ran out for some rule, which is
 *     not among them
 */
public record Placement(
    String rule, int place, int places, List<BlockingRule> blockingRules, boolean complete) {

  /**
   * A rule with another verdict that would decide some connections of this rule if this rule were
   * absent.
   *
   * @param position of that rule among the others, from 0
   * @param rule its id
   * @param verdict the verdict of that rule
   * @param witness a connection that both match and that it would decide
   */
  public record BlockingRule(int position, String rule, Verdict verdict, Connection witness) {}

  public Placement {
    blockingRules = List.copyOf(blockingRules);
  }

  /**
   * The blocking rules between the rule's place and another: each one's witness changes its
   * verdict.
   */
  public List<BlockingRule> passed(int place) {
    if (place < 0 || place >= places) {
      throw new IllegalArgumentException("place " + place + " of " + places);
    }
    int from = Math.min(place, this.place);
    int to = Math.max(place, this.place);
    return blockingRules.stream()
        .filter(blocking -> blocking.position >= from && blocking.position < to)
        .toList();
  }

  /** Whether the rule can stand there without changing any verdict. */
  public boolean quiet(int place) {
    return complete && passed(place).isEmpty();
  }
}
