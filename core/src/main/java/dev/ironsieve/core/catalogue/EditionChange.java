package dev.ironsieve.core.catalogue;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.sets.IntSet;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/**
 * What another edition of the catalogue changes.
 *
 * @param added names of applications that are new
 * @param removed names of those that are no longer there
 * @param changed what became otherwise of each that stayed, in words, by its name
 */
public record EditionChange(
    List<String> added, List<String> removed, Map<String, List<String>> changed) {

  /** O(applications · log applications). */
  public static EditionChange between(Catalogue before, Catalogue after) {
    Map<String, Application> old = byName(before);
    Map<String, Application> next = byName(after);
    List<String> added = new ArrayList<>();
    List<String> removed = new ArrayList<>();
    Map<String, List<String>> changed = new LinkedHashMap<>();
    next.forEach(
        (key, application) -> {
          Application was = old.get(key);
          if (was == null) {
            added.add(application.name());
          } else if (!was.equals(application)) {
            changed.put(application.name(), differences(was, application));
          }
        });
    old.forEach(
        (key, application) -> {
          if (!next.containsKey(key)) {
            removed.add(application.name());
          }
        });
    return new EditionChange(added, removed, changed);
  }

  private static Map<String, Application> byName(Catalogue catalogue) {
    Map<String, Application> out = new LinkedHashMap<>();
    catalogue.applications().forEach(a -> out.put(Names.key(a.name()), a));
    return out;
  }

  private static List<String> differences(Application was, Application is) {
    List<String> out = new ArrayList<>();
    say(out, "name", was.name(), is.name());
    say(out, "summary", was.summary(), is.summary());
    say(out, "category", was.category(), is.category());
    say(out, "risk", was.risk(), is.risk());
    say(out, "usefulness", was.usefulness(), is.usefulness());
    say(out, "tags", was.tags(), is.tags());
    say(out, "ports", was.ports(), is.ports());
    say(out, "hosts", was.hosts(), is.hosts());
    say(out, "needs", was.needs(), is.needs());
    say(out, "carries", was.carries(), is.carries());
    say(out, "features", features(was), features(is));
    return List.copyOf(out);
  }

  private static List<String> features(Application application) {
    return application.features().stream()
        .map(f -> f.name() + (f.seenSealed() ? " (seen sealed)" : ""))
        .toList();
  }

  private static void say(List<String> out, String what, Object was, Object is) {
    if (!was.equals(is)) {
      out.add(what + " from " + words(was) + " to " + words(is));
    }
  }

  private static String words(Object value) {
    if (value instanceof List<?> list) {
      return list.isEmpty()
          ? "none"
          : String.join(", ", list.stream().map(Object::toString).toList());
    }
    return value.toString();
  }

  /**
   * What becomes of a rule's match of applications.
   *
   * @param gained uses that the rule asks for now
   * @param lost uses that it no longer asks for
   * @param unknown what it says and the newer edition does not know; the edition cannot be taken as
   *     long as a rule says so
   */
  public record RuleChange(
      Rule rule, List<String> gained, List<String> lost, List<String> unknown) {}

  /** The rules whose match another edition changes, in their order; O(rules · uses). */
  public static List<RuleChange> ofRules(List<Rule> rules, Catalogue before, Catalogue after) {
    Sayable old = new Sayable(before.vocabulary());
    Sayable next = new Sayable(after.vocabulary());
    List<RuleChange> out = new ArrayList<>();
    for (Rule rule : rules) {
      Criterion<String> asked = rule.term(Coordinate.APPLICATION);
      if (asked.isAny()) {
        continue;
      }
      Set<String> was = old.uses(asked);
      Set<String> is = next.uses(asked);
      List<String> gained = is.stream().filter(use -> !was.contains(use)).toList();
      List<String> lost = was.stream().filter(use -> !is.contains(use)).toList();
      List<String> unknown =
          asked.mentioned().stream().filter(name -> next.members(name).isEmpty()).toList();
      if (!gained.isEmpty() || !lost.isEmpty() || !unknown.isEmpty()) {
        out.add(new RuleChange(rule, gained, lost, unknown));
      }
    }
    return out;
  }

  /** What rules can say of applications in one edition. */
  private static final class Sayable {
    private final List<String> values;
    private final Map<String, IntSet> meanings;

    Sayable(Vocabulary vocabulary) {
      values = vocabulary.values();
      meanings = vocabulary.meanings();
    }

    /** Numbers of the uses that a name stands for; none if the edition does not know it. */
    IntSet members(String name) {
      return meanings.getOrDefault(Names.key(name), IntSet.EMPTY);
    }

    /** What a criterion asks for. */
    Set<String> uses(Criterion<String> asked) {
      IntSet in = asked.items().isEmpty() ? IntSet.range(0, values.size() - 1) : IntSet.EMPTY;
      for (String name : asked.items()) {
        in = in.union(members(name));
      }
      for (String name : asked.except()) {
        in = in.minus(members(name));
      }
      Set<String> out = new TreeSet<>();
      in.forEach(number -> out.add(values.get(number)));
      return out;
    }
  }
}
