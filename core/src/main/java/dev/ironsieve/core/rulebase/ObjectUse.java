package dev.ironsieve.core.rulebase;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceObject;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;

/** Finds the rules that use an object of one kind. */
final class ObjectUse {
  private final Rulebase rulebase;
  private final ObjectKind kind;
  private final Map<String, List<String>> groups; // keys of the members that are objects, by key

  ObjectUse(Rulebase rulebase, ObjectKind kind) {
    this.rulebase = rulebase;
    this.kind = kind;
    groups =
        switch (kind) {
          case ZONE, HOST_LIST, SCHEDULE, DEVICE_STATE, RATE_PLAN, NOTICE -> Map.of();
          case ADDRESS ->
              groups(
                  rulebase.addresses(), AddressObject::name, o -> AddressItem.names(o.members()));
          case SERVICE ->
              groups(rulebase.services(), ServiceObject::name, o -> ServiceItem.names(o.members()));
        };
  }

  private static <T> Map<String, List<String>> groups(
      List<T> objects, Function<T, String> name, Function<T, List<String>> members) {
    return objects.stream()
        .collect(
            Collectors.toMap(
                object -> Names.key(name.apply(object)),
                object -> members.apply(object).stream().map(Names::key).toList()));
  }

  /** The rules that mention a name, themselves or through groups; O(groups · nesting + rules). */
  List<Rule> rulesUsing(String name) {
    Set<String> names = new HashSet<>(Set.of(Names.key(name)));
    boolean grown = !groups.isEmpty();
    while (grown) {
      grown = false;
      for (Map.Entry<String, List<String>> group : groups.entrySet()) {
        if (group.getValue().stream().anyMatch(names::contains)) {
          grown |= names.add(group.getKey());
        }
      }
    }
    return rulebase.rules().stream()
        .filter(rule -> kind.namesIn(rule).stream().map(Names::key).anyMatch(names::contains))
        .toList();
  }
}
