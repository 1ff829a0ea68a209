package dev.ironsieve.core.difference;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Box;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * The connections that two rulebases decide differently.
 *
 * @param before the rules before
 * @param after the rules after, laid into the same space
 * @param aspect what they are compared in
 * @param changed enabled rules of before that are gone, changed, or stand elsewhere after
 * @param parts disjoint; the largest first
 * @param complete whether these are all; if not, the budget of work ran out
 */
public record Difference(
    RuleIndex before,
    RuleIndex after,
    Aspect aspect,
    Set<Rule> changed,
    List<ChangedBox> parts,
    boolean complete) {

  /** The share of its box that a part is. */
  public enum Extent {
    /** All of it. */
    WHOLE,
    /**
     * All that the rule which decided the witness before decided in the box, with the same answer
     * after as for the witness. Used for shapes of very many boxes.
     */
    DECIDED_BEFORE,
    /**
     * All that the rule which decides the witness after decides in the box, with the same answer
     * before as for the witness, given by an unchanged rule.
     */
    DECIDED_AFTER
  }

  /**
   * Connections in one box that all have the same answer before, and another, also the same, after.
   *
   * @param box in the space of the indexes
   * @param extent how much of the box
   * @param share of all connections, counting each class of each axis once: 0 to 1; exact for a
   *     whole box, else estimated from {@value Differences#SAMPLES} points of the box, which are
   *     spread evenly
   * @param before the rule that decided the witness before, or null for the default rule; other
   *     rules with the same answer may have decided the rest of the box
   * @param after the rule that decides the witness after, or null for the default rule
   * @param witness one of the connections
   */
  public record ChangedBox(
      Box box, Extent extent, double share, Rule before, Rule after, Connection witness) {}

  /** The part that a wholly known connection is in. */
  public Optional<ChangedBox> part(Connection connection) {
    int[] point = after.space().point(connection);
    return point == null
        ? Optional.empty()
        : parts.stream().filter(part -> contains(part, point)).findFirst();
  }

  /** Whether a point of the space is in a part. */
  public boolean contains(ChangedBox part, int[] point) {
    if (!part.box().contains(point)) {
      return false;
    }
    Rule was = before.ruleAt(point);
    Rule is = after.ruleAt(point);
    return switch (part.extent()) {
      case WHOLE -> true;
      case DECIDED_BEFORE -> was == part.before() && alike(is, part.after());
      case DECIDED_AFTER ->
          is == part.after() && alike(was, part.before()) && !changed.contains(was);
    };
  }

  /** For people: what the box of a part asks for on each axis that it narrows. */
  public List<String> words(ChangedBox part) {
    return after.space().words(part.box());
  }

  private boolean alike(Rule one, Rule other) {
    return aspect.of(one).equals(aspect.of(other));
  }

  /** Whether it is proven that no decision differs. */
  public boolean isEmpty() {
    return parts.isEmpty() && complete;
  }
}
