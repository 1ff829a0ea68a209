package dev.ironsieve.core.twin;

import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.IntPredicate;

/** What applications need, tried on every point of a small world. Rules are meant by position. */
public final class SlowNeeds {
  private final Tried tried;
  private final List<Connection> points;
  private final Vocabulary applications; // null if there is none
  private final Map<String, Set<Object>> served = new HashMap<>(); // somebodies, by application

  public SlowNeeds(Tried tried, List<Connection> points, Vocabulary applications) {
    this.tried = tried;
    this.points = points;
    this.applications = applications;
    Verdict[] verdicts = applications == null ? new Verdict[0] : tried.verdicts();
    for (int p = 0; p < verdicts.length; p++) {
      if (letsThrough(verdicts[p])) {
        for (ApplicationFact fact : applications.applications()) {
          if (isUsual(p, fact)) {
            served.computeIfAbsent(fact.name(), name -> new HashSet<>()).add(source(p));
          }
        }
      }
    }
  }

  private static boolean letsThrough(Verdict verdict) {
    return verdict == Verdict.ALLOW || verdict == Verdict.CAUTION;
  }

  private boolean isOf(int point, ApplicationFact fact) {
    String use = points.get(point).terms().get(Coordinate.APPLICATION);
    return fact.uses().contains(applications.values().indexOf(use));
  }

  /** Whether a point is of an application, on a port that is usual for it. */
  private boolean isUsual(int point, ApplicationFact fact) {
    Connection c = points.get(point);
    return isOf(point, fact)
        && fact.ports().stream()
            .anyMatch(
                port ->
                    port.protocol() == c.protocol()
                        && port.firstDetail() <= c.detail()
                        && c.detail() <= port.lastDetail());
  }

  private Object source(int point) {
    Connection c = points.get(point);
    return List.of(c.from(), c.terms().get(Coordinate.PERSON));
  }

  /** An example does not say who it is where no rule asks. */
  private static boolean isSame(Connection c, Connection example) {
    String person = example.terms().get(Coordinate.PERSON);
    return c.from().equals(example.from())
        && (person == null || person.equals(c.terms().get(Coordinate.PERSON)));
  }

  /** The needs of a rule's applications that a source is not allowed: "a needs b" for each. */
  public Set<String> unmet(int rule) {
    Set<String> out = new TreeSet<>();
    Rule asked = tried.rules().get(rule);
    if (applications == null
        || asked.verdict() != Verdict.ALLOW
        || asked.term(Coordinate.APPLICATION).isAny()) {
      return out;
    }
    tried.decided(rule).stream()
        .forEach(
            p -> {
              for (ApplicationFact fact : applications.applications()) {
                for (String need : isOf(p, fact) ? fact.needs() : List.<String>of()) {
                  if (!served.getOrDefault(need, Set.of()).contains(source(p))) {
                    out.add(fact.name() + " needs " + need);
                  }
                }
              }
            });
    return out;
  }

  /**
   * Whether a source is kept from an application by some of the rules that do not let through; all
   * that do are there.
   */
  public boolean isKeptFrom(Connection source, String application, BitSet by) {
    ApplicationFact wanted =
        applications.applications().stream()
            .filter(fact -> fact.name().equals(application))
            .findFirst()
            .orElseThrow();
    IntPredicate there =
        i ->
            SlowRules.mayDecide(tried.rules().get(i))
                && (letsThrough(tried.verdict(i)) || by.get(i));
    for (int p = 0; p < points.size(); p++) {
      if (isUsual(p, wanted) && isSame(points.get(p), source)) {
        for (int i = 0; i < tried.rules().size(); i++) {
          if (there.test(i) && tried.held(i).get(p)) {
            if (letsThrough(tried.verdict(i))) {
              return false;
            }
            break;
          }
        }
      }
    }
    return true;
  }
}
