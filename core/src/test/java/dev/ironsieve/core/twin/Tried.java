package dev.ironsieve.core.twin;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** A rulebase tried on every point of its small world. Rules are meant by their position. */
public final class Tried {
  private final SlowRules slow;
  private final List<Connection> all;
  private final List<Rule> rules;
  private final List<BitSet> held = new ArrayList<>();
  private final int points;
  private Verdict[] verdicts; // null before they are asked for

  public Tried(Rulebase base, List<Connection> all) {
    this(new SlowRules(base), all, Map.of());
  }

  private Tried(SlowRules slow, List<Connection> all, Map<Rule, BitSet> known) {
    this.slow = slow;
    this.all = all;
    rules = slow.rulebase().rules();
    points = all.size();
    for (Rule rule : rules) {
      held.add(known.containsKey(rule) ? known.get(rule) : tried(rule));
    }
  }

  private BitSet tried(Rule rule) {
    BitSet where = new BitSet();
    for (int p = 0; p < points; p++) {
      if (slow.holds(rule, all.get(p))) {
        where.set(p);
      }
    }
    return where;
  }

  /** Another rulebase on the same points; a rule that means the same in both is not tried again. */
  public Tried on(Rulebase other) {
    SlowRules next = new SlowRules(other);
    Map<Rule, BitSet> known = new HashMap<>();
    if (next.holdsAsIn(slow)) {
      for (int i = 0; i < rules.size(); i++) {
        known.put(rules.get(i), held.get(i));
      }
    }
    return new Tried(next, all, known);
  }

  public List<Rule> rules() {
    return rules;
  }

  public int points() {
    return points;
  }

  /** The points that a rule matches. */
  public BitSet held(int rule) {
    return (BitSet) held.get(rule).clone();
  }

  /** The position of the rule that decides a point when {@code without} is not there, or -1. */
  public int decides(int point, int without) {
    for (int i = 0; i < rules.size(); i++) {
      if (i != without && SlowRules.mayDecide(rules.get(i)) && held.get(i).get(point)) {
        return i;
      }
    }
    return -1;
  }

  public Verdict verdict(int rule) {
    return rule < 0 ? Verdict.DROP : rules.get(rule).verdict();
  }

  /** The verdict at every point. */
  public Verdict[] verdicts() {
    if (verdicts == null) {
      verdicts = new Verdict[points];
      Arrays.setAll(verdicts, point -> verdict(decides(point, -1)));
    }
    return verdicts.clone();
  }

  /** The points that a rule decides. */
  public BitSet decided(int rule) {
    BitSet left = SlowRules.mayDecide(rules.get(rule)) ? held(rule) : new BitSet();
    for (int i = 0; i < rule; i++) {
      if (SlowRules.mayDecide(rules.get(i))) {
        left.andNot(held.get(i));
      }
    }
    return left;
  }

  public boolean covers(BitSet some, int rule) {
    BitSet left = held(rule);
    some.stream().forEach(i -> left.andNot(held.get(i)));
    return left.isEmpty();
  }

  /** Whether fewer than {@code size} enabled rules above cover a rule; tries every choice. */
  public boolean someCoverIsSmallerThan(int size, int rule) {
    for (long subset = 0; subset < 1L << rule; subset++) {
      BitSet some = BitSet.valueOf(new long[] {subset});
      boolean enabled = some.stream().allMatch(i -> SlowRules.mayDecide(rules.get(i)));
      if (enabled && Long.bitCount(subset) < size && covers(some, rule)) {
        return true;
      }
    }
    return false;
  }

  /** It decides some points, but without it every one of them would get the same verdict. */
  public boolean isRedundantBelow(int rule) {
    BitSet decided = decided(rule);
    return !decided.isEmpty()
        && decided.stream().allMatch(p -> verdict(decides(p, rule)) == verdict(rule));
  }

  /** The same when, of the rules below with its verdict, only {@code helpers} are there. */
  public boolean isRedundantBelow(int rule, BitSet helpers) {
    return decided(rule).stream()
        .allMatch(
            p -> {
              for (int i = rule + 1; i < rules.size(); i++) {
                boolean there = verdict(i) != verdict(rule) || helpers.get(i);
                if (there && SlowRules.mayDecide(rules.get(i)) && held.get(i).get(p)) {
                  return verdict(i) == verdict(rule);
                }
              }
              return verdict(rule) == Verdict.DROP;
            });
  }

  /** Each matches something the other does not, and the earlier decides a point of both. */
  public boolean correlates(int rule, int earlier) {
    BitSet both = decided(earlier);
    both.and(held.get(rule));
    return contradicts(rule, earlier)
        && !both.isEmpty()
        && !holdsAll(rule, earlier)
        && !holdsAll(earlier, rule);
  }

  /** It contains the match of an earlier rule, which decides something. */
  public boolean generalises(int rule, int earlier) {
    return contradicts(rule, earlier) && !decided(earlier).isEmpty() && holdsAll(rule, earlier);
  }

  private boolean contradicts(int rule, int earlier) {
    return SlowRules.mayDecide(rules.get(rule))
        && SlowRules.mayDecide(rules.get(earlier))
        && verdict(rule) != verdict(earlier);
  }

  private boolean holdsAll(int outer, int inner) {
    BitSet left = held(inner);
    left.andNot(held.get(outer));
    return left.isEmpty();
  }
}
