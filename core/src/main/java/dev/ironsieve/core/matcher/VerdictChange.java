package dev.ironsieve.core.matcher;

import dev.ironsieve.core.matcher.Trace.CriterionName;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.ruleindex.RuleIndex;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * One change of one rule that would let a refused connection through, or refuse one that is let
 * through.
 *
 * @param kind of change
 * @param rule that is changed
 * @param criterion that would have to hold the connection; null for other kinds
 * @param decides the rule that would decide then; null for the default rule
 */
public record VerdictChange(Kind kind, Rule rule, CriterionName criterion, Rule decides) {
  /** What is changed. */
  public enum Kind {
    /** The rule stands above, and all its criteria hold but one. */
    WIDENED,
    /** The rule stands above and would hold, but is disabled. */
    ENABLED,
    /** The rule holds, but stands below the one that decides. */
    MOVED_ABOVE,
    /** The rule decides; without it another would. */
    REMOVED
  }

  /** The verdict that the connection would get. */
  public Verdict verdict() {
    return DefaultRule.verdict(decides);
  }

  /**
   * The changes, the nearest first: those of rules right above the one that decides, then of rules
   * below it, then its own. O(rules).
   *
   * @param trace of the connection
   * @param most of the first kind
   */
  static List<VerdictChange> of(Trace trace, CriterionEvaluator asked, RuleIndex index, int most) {
    boolean through = DefaultRule.verdict(trace.decided()).letsThrough();
    List<VerdictChange> out = new ArrayList<>();
    for (int i = trace.passed().size() - 1; i >= 0 && out.size() < most; i--) {
      Rule rule = trace.passed().get(i).rule();
      if (rule.verdict().letsThrough() != through) {
        above(rule, asked.failing(index.handle(rule.id()), false)).ifPresent(out::add);
      }
    }
    if (trace.decided() == null) {
      return out;
    }
    Rule next = null; // that would decide without the one that does
    Rule other = null; // the first with another effect
    int below = index.position(index.handle(trace.decided().id())) + 1;
    for (; below < index.size() && other == null; below++) {
      Rule holding = holding(below, asked, index);
      next = next == null ? holding : next;
      other = holding != null && holding.verdict().letsThrough() != through ? holding : null;
    }
    if (other != null) {
      out.add(new VerdictChange(Kind.MOVED_ABOVE, other, null, other));
    }
    if (DefaultRule.verdict(next).letsThrough() != through) {
      out.add(new VerdictChange(Kind.REMOVED, trace.decided(), null, next));
    }
    return out;
  }

  private static Optional<VerdictChange> above(Rule rule, Set<CriterionName> failing) {
    if (rule.isInForce() && failing.size() == 1) {
      return Optional.of(new VerdictChange(Kind.WIDENED, rule, failing.iterator().next(), rule));
    }
    boolean onlyDisabled = !rule.enabled() && rule.enabled(true).isInForce();
    return onlyDisabled && failing.isEmpty()
        ? Optional.of(new VerdictChange(Kind.ENABLED, rule, null, rule))
        : Optional.empty();
  }

  /** The rule at a position, if it is in force and holds; else null. */
  private static Rule holding(int position, CriterionEvaluator asked, RuleIndex index) {
    int handle = index.handleAt(position);
    Rule rule = index.rule(handle);
    return rule.isInForce() && asked.failing(handle, true).isEmpty() ? rule : null;
  }
}
