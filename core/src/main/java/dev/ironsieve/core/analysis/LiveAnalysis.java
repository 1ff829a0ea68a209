package dev.ironsieve.core.analysis;

import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.space.Resolution;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The standing of every rule of a rulebase, kept up to date through edits. After an edit only those
 * rules are asked again that an edited rule, as it was or as it is, stands above and meets. Not
 * safe for use by several threads at once.
 */
public final class LiveAnalysis {
  private final long steps;
  private Rulebase rulebase;
  private Analysis analysis;
  private Map<String, Standing> standings;

  public LiveAnalysis(Rulebase rulebase) {
    this(rulebase, Analysis.STEPS);
  }

  /**
   * @param steps budget for each rule, in comparisons of one box with another
   */
  public LiveAnalysis(Rulebase rulebase, long steps) {
    this.steps = steps;
    start(rulebase);
  }

  /** The standing of every rule by its id. */
  public Map<String, Standing> standings() {
    return Collections.unmodifiableMap(standings);
  }

  public Rulebase rulebase() {
    return rulebase;
  }

  private void start(Rulebase next) {
    rulebase = next;
    analysis = new Analysis(new Resolution(next), next.rules(), steps);
    standings = new HashMap<>();
    for (int i = 0; i < analysis.rules().size(); i++) {
      standings.put(analysis.rules().get(i).id(), analysis.standing(i));
    }
  }

  /**
   * Takes over the next state of the rulebase.
   *
   * @param moved ids of rules whose place among the others may have changed
   * @return the rules whose standing is new or another than before
   */
  public Map<String, Standing> update(Rulebase next, Set<String> moved) {
    boolean sameWords =
        next.zones().equals(rulebase.zones())
            && next.addresses().equals(rulebase.addresses())
            && next.services().equals(rulebase.services());
    Map<String, Standing> before = standings;
    if (sameWords) {
      redo(next, moved);
    } else {
      start(next);
    }
    Map<String, Standing> changed = new LinkedHashMap<>();
    for (Rule rule : analysis.rules()) {
      Standing now = standings.get(rule.id());
      if (!now.equals(before.get(rule.id()))) {
        changed.put(rule.id(), now);
      }
    }
    return changed;
  }

  private void redo(Rulebase next, Set<String> moved) {
    Analysis old = analysis;
    Analysis fresh = new Analysis(new Resolution(next), next.rules(), steps);
    List<String> edited = new ArrayList<>();
    for (Rule rule : fresh.rules()) {
      boolean same =
          !moved.contains(rule.id())
              && old.number(rule.id())
                  .map(old.rules()::get)
                  .filter(was -> decidesLike(was, rule))
                  .isPresent();
      if (!same) {
        edited.add(rule.id());
      }
    }
    for (Rule rule : old.rules()) {
      if (fresh.number(rule.id()).isEmpty()) {
        edited.add(rule.id());
      }
    }
    Map<String, Standing> out = new HashMap<>();
    for (int i = 0; i < fresh.rules().size(); i++) {
      String id = fresh.rules().get(i).id();
      boolean kept = !affected(old, edited, id) && !affected(fresh, edited, id);
      out.put(id, kept ? standings.get(id) : fresh.standing(i));
    }
    rulebase = next;
    analysis = fresh;
    standings = out;
  }

  private static boolean decidesLike(Rule was, Rule is) {
    return was.enabled() == is.enabled() && was.verdict() == is.verdict() && was.matchesLike(is);
  }

  /** Whether the rule is edited itself or stands below an edited rule that it meets. */
  private static boolean affected(Analysis in, List<String> edited, String id) {
    if (in.number(id).isEmpty()) {
      return true;
    }
    int rule = in.number(id).get();
    for (String other : edited) {
      if (other.equals(id)) {
        return true;
      }
      int number = in.number(other).orElse(Integer.MAX_VALUE);
      if (number < rule && in.meet(number, rule)) {
        return true;
      }
    }
    return false;
  }
}
