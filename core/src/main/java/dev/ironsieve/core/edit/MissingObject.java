package dev.ironsieve.core.edit;

import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.space.Resolution;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** A zone or an object that rules name and a rulebase lacks. */
public record MissingObject(ObjectKind kind, String name) {

  /**
   * The missing objects of some rules, each once, in the order in which the rules name them. People
   * and applications are no objects, and are not among them. O(rules · names + objects).
   */
  public static List<MissingObject> in(List<Rule> rules, Rulebase rulebase) {
    Resolution resolution = new Resolution(rulebase);
    Set<MissingObject> seen = new HashSet<>(); // by key
    List<MissingObject> out = new ArrayList<>();
    for (Rule rule : rules) {
      for (ObjectKind kind : ObjectKind.values()) {
        for (String name : kind.namesIn(rule)) {
          if (!isKnown(kind, name, rulebase, resolution)
              && seen.add(new MissingObject(kind, Names.key(name)))) {
            out.add(new MissingObject(kind, name));
          }
        }
      }
    }
    return out;
  }

  private static boolean isKnown(
      ObjectKind kind, String name, Rulebase rulebase, Resolution resolution) {
    String key = Names.key(name);
    return switch (kind) {
      case ZONE -> rulebase.zones().stream().anyMatch(zone -> Names.key(zone.name()).equals(key));
      case ADDRESS -> resolution.hasAddress(name);
      case SERVICE -> resolution.hasService(name);
      case RATE_PLAN ->
          rulebase.gatewaySettings().ratePlans().stream()
              .anyMatch(plan -> Names.key(plan.name()).equals(key));
      case NOTICE ->
          rulebase.gatewaySettings().notices().stream()
              .anyMatch(notice -> Names.key(notice.name()).equals(key));
      case HOST_LIST, SCHEDULE, DEVICE_STATE ->
          TermObject.isLiteral(kind.coordinate(), name)
              || rulebase.termObjects(kind).stream()
                  .anyMatch(object -> Names.key(object.name()).equals(key))
              || rulebase
                  .vocabulary(kind.coordinate())
                  .filter(vocabulary -> vocabulary.meanings().containsKey(key))
                  .isPresent();
    };
  }
}
