package dev.ironsieve.core.checks;

import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.matcher.PossibleDecisions;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Defaults;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.SavedCheck;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.reach.ReachTable;
import dev.ironsieve.core.reach.VerdictSearch;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.core.text.ReachLine;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;

/**
 * The result of running one saved check. Where its connection leaves something unsaid, it stands
 * for every connection that agrees with it, and all of them must get the expected verdict.
 *
 * @param verdict that the connection gets, or, if not all get the same, one that some of them get
 *     which is not the expected one; null if the check names an object or a value that the rulebase
 *     lacks
 * @param rule id of the rule that decides there; null for the default rule
 * @param certain whether all connections that agree with it get the verdict
 * @param counterexample a connection that agrees with it and gets another verdict than expected, or
 *     is decided by another rule than expected; null if there is none, or if nothing is unsaid
 * @param refused why the connection cannot be tried; null if it can
 * @param lockedOut what decides a protected connection while the directory is away, if that does
 *     not let it through; else null
 */
public record CheckResult(
    SavedCheck check,
    Verdict verdict,
    String rule,
    boolean certain,
    Connection counterexample,
    String refused,
    LockedOut lockedOut) {
  /**
   * What refuses a protected connection while the directory is away.
   *
   * @param rule its id; null for the default rule
   */
  public record LockedOut(Verdict verdict, String rule) {}

  /** Steps of work for one check of a connection that leaves something unsaid. */
  private static final long STEPS = 200_000;

  /** Whether it comes out as it must; not if it cannot be tried. */
  public boolean holds() {
    return certain
        && lockedOut == null
        && counterexample == null
        && verdict == check.expected()
        && (check.rule() == null || check.rule().equals(rule));
  }

  /**
   * Tries every check of a rulebase; O(checks · names that a line can say), and a look-up or, where
   * something is unsaid, a search each.
   *
   * @param index of the rulebase
   */
  public static List<CheckResult> of(Rulebase rulebase, RuleIndex index) {
    Matcher matcher = new Matcher(index);
    List<CheckResult> out = new ArrayList<>();
    for (SavedCheck check : rulebase.checks()) {
      try {
        if (check.isSet()) {
          out.add(ofSet(check, rulebase, index));
          continue;
        }
        Connection connection =
            ConnectionLine.parse(check.connection(), rulebase, index.resolution());
        CheckResult result = of(check, matcher.possible(connection, STEPS), matcher, connection);
        out.add(
            check.protectedConnection() ? result.whileAway(connection, rulebase, matcher) : result);
      } catch (InvalidText e) {
        out.add(new CheckResult(check, null, null, false, null, e.getMessage(), null));
      }
    }
    return out;
  }

  /** Of a check whose connections all have to be let through, or all be refused. */
  private static CheckResult ofSet(SavedCheck check, Rulebase rulebase, RuleIndex index) {
    Rule question = ReachLine.parse(check.question(), rulebase);
    RuleIndex asked = index;
    List<Box> region;
    try {
      region = ReachTable.regionOf(asked, question);
    } catch (IllegalStateException e) { // no room left to tell it apart
      asked = new RuleIndex(rulebase);
      region = ReachTable.regionOf(asked, question);
    }
    boolean refusing = !check.expected().letsThrough();
    return switch (VerdictSearch.find(asked, region, refusing, new Budget(STEPS))) {
      case Outcome.Covered none ->
          new CheckResult(check, check.expected(), null, true, null, null, null);
      case Outcome.Exhausted exhausted ->
          new CheckResult(check, check.expected(), null, false, null, null, null);
      case Outcome.Uncovered found -> {
        int decides = asked.first(found.point());
        Connection counterexample = asked.space().connection(found.point());
        Rule rule = decides == RuleIndex.NONE ? null : asked.rule(decides);
        yield of(check, rule, true, counterexample);
      }
    };
  }

  private static CheckResult of(
      SavedCheck check, PossibleDecisions possible, Matcher matcher, Connection connection) {
    boolean certain = possible.certain().isPresent();
    if (possible.decisions().isEmpty()) { // no feasible connection, so the criteria alone tell
      Rule rule = matcher.decide(connection).orElse(null);
      return of(check, rule, true, null);
    }
    for (PossibleDecisions.Decision decision : possible.decisions()) {
      String id = decision.rule() == null ? null : decision.rule().id();
      if (decision.verdict() != check.expected()
          || check.rule() != null && !check.rule().equals(id)) {
        boolean single = possible.decisions().size() == 1;
        return of(check, decision.rule(), certain, single ? null : decision.witness());
      }
    }
    return of(check, possible.decisions().getFirst().rule(), certain, null);
  }

  private static CheckResult of(
      SavedCheck check, Rule rule, boolean certain, Connection counterexample) {
    return new CheckResult(
        check,
        DefaultRule.verdict(rule),
        rule == null ? null : rule.id(),
        certain,
        counterexample,
        null,
        null);
  }

  /** This result, and what refuses the connection when nobody counts as signed in. */
  private CheckResult whileAway(Connection connection, Rulebase rulebase, Matcher matcher) {
    boolean people =
        rulebase
            .vocabulary(Coordinate.PERSON)
            .filter(vocabulary -> vocabulary.values().contains(Defaults.NOBODY))
            .isPresent();
    if (!people || Defaults.NOBODY.equals(connection.terms().get(Coordinate.PERSON))) {
      return this;
    }
    Map<Coordinate, String> terms = new EnumMap<>(Coordinate.class);
    terms.putAll(connection.terms());
    terms.put(Coordinate.PERSON, Defaults.NOBODY);
    Connection away = connection.saying(terms);
    PossibleDecisions possible = matcher.possible(away, STEPS);
    List<Rule> deciding = new ArrayList<>(); // null for the default rule
    possible.decisions().forEach(decision -> deciding.add(decision.rule()));
    if (deciding.isEmpty()) { // no feasible connection, so the criteria alone tell
      deciding.add(matcher.decide(away).orElse(null));
    }
    LockedOut found = null;
    for (Rule one : deciding) {
      Verdict decided = DefaultRule.verdict(one);
      if (found == null && !decided.letsThrough()) {
        found = new LockedOut(decided, one == null ? null : one.id());
      }
    }
    boolean isCertain = certain && (possible.complete() || possible.decisions().isEmpty());
    return new CheckResult(check, verdict, rule, isCertain, counterexample, refused, found);
  }

  /**
   * A check with another result.
   *
   * @param after of the same check, in another rulebase
   */
  public record Flip(CheckResult before, CheckResult after) {}

  /**
   * The checks that hold in one of two rulebases only.
   *
   * @param difference of the two, of which only the orders are asked
   */
  public static List<Flip> flips(Rulebase before, Rulebase after, Difference difference) {
    List<CheckResult> old = of(before, difference.before());
    List<CheckResult> now = of(after.withChecks(before.checks()), difference.after());
    List<Flip> out = new ArrayList<>();
    for (int i = 0; i < old.size(); i++) {
      if (old.get(i).holds() != now.get(i).holds()) {
        out.add(new Flip(old.get(i), now.get(i)));
      }
    }
    return out;
  }
}
