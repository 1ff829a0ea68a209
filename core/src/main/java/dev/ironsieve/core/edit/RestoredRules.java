package dev.ironsieve.core.edit;

import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** The edit that takes some rules back to what they were in another state of a rulebase. */
public final class RestoredRules {
  private final Map<String, Stand> wanted;
  private final Map<String, Stand> given;
  private final Rulebase of;
  private final List<Edit> edits = new ArrayList<>();
  private Rulebase state;

  /**
   * Where a rule stands.
   *
   * @param number among all rules, from 0
   */
  private record Stand(Rule rule, Section section, int number) {}

  private RestoredRules(Rulebase of, Rulebase now) {
    this.of = of;
    state = now;
    wanted = stands(of);
    given = stands(now);
  }

  /**
   * A rule that is only there now is deleted, one that is only in the other state comes back. A
   * rule stands where the fewest rules of its section are on the other side of it than they were,
   * and moves only if there are fewer then. O(ids · rules).
   *
   * @param ids of rules in one of the two states or both
   * @param of the other state
   * @return empty if these rules are as they were
   * @throws MissingTarget if a rule is in neither state
   */
  public static Optional<Edit> of(List<String> ids, Rulebase of, Rulebase now) {
    RestoredRules restored = new RestoredRules(of, now);
    restored.add(Set.copyOf(ids));
    return restored.edits.isEmpty()
        ? Optional.empty()
        : Optional.of(
            restored.edits.size() == 1
                ? restored.edits.getFirst()
                : new Edit.Batch(restored.edits));
  }

  private static Map<String, Stand> stands(Rulebase rulebase) {
    Map<String, Stand> out = new LinkedHashMap<>();
    for (Section section : rulebase.sections()) {
      section.rules().forEach(rule -> out.put(rule.id(), new Stand(rule, section, out.size())));
    }
    return out;
  }

  private void add(Set<String> ids) {
    List<String> gone = new ArrayList<>();
    for (String id : ids) {
      if (!wanted.containsKey(id) && !given.containsKey(id)) {
        throw new MissingTarget("rule", id);
      }
      if (!wanted.containsKey(id)) {
        gone.add(id);
      }
    }
    if (!gone.isEmpty()) {
      apply(new Edit.DeleteRules(gone));
    }
    List<Rule> others =
        wanted.values().stream()
            .map(Stand::rule)
            .filter(rule -> ids.contains(rule.id()))
            .filter(rule -> given.containsKey(rule.id()))
            .filter(rule -> !given.get(rule.id()).rule().equals(rule))
            .toList();
    if (!others.isEmpty()) {
      apply(new Edit.ReplaceRules(others));
    }
    for (Stand stand : wanted.values()) {
      String id = stand.rule().id();
      if (!ids.contains(id)) {
        continue;
      }
      if (!given.containsKey(id)) {
        makeSection(stand.section());
        apply(new Edit.InsertRules(List.of(stand.rule()), best(stand).place()));
      } else if (isMoved(stand)) {
        makeSection(stand.section());
        apply(new Edit.MoveRules(List.of(id), best(stand).place()));
      }
    }
  }

  private void apply(Edit edit) {
    state = edit.apply(state);
    edits.add(edit);
  }

  private boolean isMoved(Stand stand) {
    String id = stand.rule().id();
    Section section = section(stand.section().id());
    List<String> inside = section == null ? List.of() : ids(section);
    int at = inside.indexOf(id);
    return at < 0 || best(stand).otherSides() < otherSides(stand, inside, at);
  }

  private Section section(String id) {
    return state.sections().stream().filter(one -> one.id().equals(id)).findFirst().orElse(null);
  }

  private static List<String> ids(Section section) {
    return section.rules().stream().map(Rule::id).toList();
  }

  /**
   * A place for a rule in its section.
   *
   * @param otherSides how many rules of the section are on the other side of it than they were
   */
  private record Candidate(Place place, int otherSides) {}

  /** The highest place with the fewest rules on the other side. */
  private Candidate best(Stand stand) {
    List<String> others = new ArrayList<>(ids(section(stand.section().id())));
    others.remove(stand.rule().id());
    int sides = otherSides(stand, others, 0);
    Candidate best = new Candidate(new Place.StartOf(stand.section().id()), sides);
    for (String above : others) {
      Stand was = wanted.get(above);
      if (was != null) {
        sides += was.number() < stand.number() ? -1 : 1;
      }
      if (sides < best.otherSides()) {
        best = new Candidate(new Place.Below(above), sides);
      }
    }
    return best;
  }

  /** How many rules are on the other side of a rule at a place of the section. */
  private int otherSides(Stand stand, List<String> inside, int at) {
    int count = 0;
    for (int i = 0; i < inside.size(); i++) {
      Stand was = wanted.get(inside.get(i));
      if (was != null && was != stand && was.number() < stand.number() != i < at) {
        count++;
      }
    }
    return count;
  }

  private void makeSection(Section section) {
    if (section(section.id()) == null) {
      apply(
          new Edit.InsertSection(
              section.id(), section.name(), nextSection(section.id()), section.tail()));
    }
  }

  /** The first section behind one in the other state that there is; null if there is none. */
  private String nextSection(String id) {
    List<String> here = state.sections().stream().map(Section::id).toList();
    List<String> there = of.sections().stream().map(Section::id).toList();
    return there.subList(there.indexOf(id) + 1, there.size()).stream()
        .filter(here::contains)
        .findFirst()
        .orElse(null);
  }
}
