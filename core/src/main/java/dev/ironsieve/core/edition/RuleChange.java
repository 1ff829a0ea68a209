package dev.ironsieve.core.edition;

import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.sets.IntSet;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/**
 * The change of a rule's match with another edition of one of its sources.
 *
 * @param gained values that the rule matches now, and new usual ports if it uses those
 * @param lost values that it no longer matches, and ports that are no longer usual
 * @param unknown names in the rule that the newer edition does not have; the edition cannot be
 *     adopted while a rule uses them
 */
public record RuleChange(Rule rule, List<String> gained, List<String> lost, List<String> unknown) {

  /** The rules whose match another edition changes, in their order; O(rules · values). */
  public static List<RuleChange> of(List<Rule> rules, Vocabulary before, Vocabulary after) {
    Sayable old = new Sayable(before);
    Sayable next = new Sayable(after);
    List<RuleChange> out = new ArrayList<>();
    for (Rule rule : rules) {
      Criterion<String> asked = rule.term(after.coordinate());
      boolean ports = rule.services().mentioned().contains(new ServiceItem.UsualPorts());
      if (asked.isAny() && !ports) {
        continue;
      }
      Set<String> was = old.values(asked);
      Set<String> is = next.values(asked);
      if (ports) {
        was.addAll(old.ports(was));
        is.addAll(next.ports(is));
      }
      List<String> gained = is.stream().filter(value -> !was.contains(value)).toList();
      List<String> lost = was.stream().filter(value -> !is.contains(value)).toList();
      List<String> unknown = asked.mentioned().stream().filter(name -> !next.knows(name)).toList();
      if (!gained.isEmpty() || !lost.isEmpty() || !unknown.isEmpty()) {
        out.add(new RuleChange(rule, gained, lost, unknown));
      }
    }
    return out;
  }

  /** The names of a coordinate in one edition. */
  private static final class Sayable {
    private final List<String> values;
    private final Map<String, IntSet> meanings;
    private final List<ApplicationFact> applications;

    Sayable(Vocabulary vocabulary) {
      values = vocabulary.values();
      meanings = vocabulary.meanings();
      applications = vocabulary.applications();
    }

    boolean knows(String name) {
      return meanings.containsKey(Names.key(name));
    }

    /** Where the applications that have some of these uses listen: "Gullwire on tcp/443". */
    Set<String> ports(Set<String> uses) {
      Set<String> out = new TreeSet<>();
      for (ApplicationFact fact : applications) {
        boolean[] meant = new boolean[1];
        fact.uses().forEach(use -> meant[0] |= uses.contains(values.get(use)));
        if (meant[0]) {
          fact.ports().forEach(port -> out.add(fact.name() + " on " + port));
        }
      }
      return out;
    }

    private IntSet members(String name) {
      return meanings.getOrDefault(Names.key(name), IntSet.EMPTY);
    }

    /** The values that a criterion asks for. */
    Set<String> values(Criterion<String> asked) {
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
