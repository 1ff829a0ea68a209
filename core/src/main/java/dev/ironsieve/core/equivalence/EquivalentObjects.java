package dev.ironsieve.core.equivalence;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.space.Resolution;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Groups of objects of one kind with equal sets of values, compared by their resolved sets. */
public final class EquivalentObjects {
  private static final Rule ANY = Rule.matchingAll("any", "any", Verdict.ALLOW);

  private EquivalentObjects() {}

  /**
   * Objects of one kind with the same meaning.
   *
   * @param names in the order of the objects; two at least
   */
  public record Group(ObjectKind kind, List<String> names) {}

  /**
   * Every group of addresses, services, host lists, schedules and device states; O(size of the
   * objects).
   */
  public static List<Group> in(Rulebase rulebase) {
    Resolution resolution = new Resolution(rulebase);
    List<Group> out = new ArrayList<>();
    Map<Object, List<String>> addresses = new LinkedHashMap<>();
    for (AddressObject object : rulebase.addresses()) {
      Criterion<AddressItem> asked = Criterion.of(new AddressItem.Named(object.name()));
      add(addresses, resolution.addresses(asked), object.name());
    }
    addGroups(out, ObjectKind.ADDRESS, addresses);
    Map<Object, List<String>> services = new LinkedHashMap<>();
    for (ServiceObject object : rulebase.services()) {
      Rule asking =
          ANY.matching(
              ANY.fromZones(),
              ANY.fromAddresses(),
              ANY.toZones(),
              ANY.toAddresses(),
              Criterion.of(new ServiceItem.Named(object.name())));
      add(services, resolution.match(asking).services(), object.name());
    }
    addGroups(out, ObjectKind.SERVICE, services);
    for (ObjectKind kind : ObjectKind.OF_TERMS) {
      Coordinate coordinate = kind.coordinate();
      Map<Object, List<String>> terms = new LinkedHashMap<>();
      for (TermObject object : rulebase.termObjects(kind)) {
        Rule asking = ANY.asking(Map.of(coordinate, Criterion.of(object.name())));
        add(terms, resolution.match(asking).terms(), object.name());
      }
      addGroups(out, kind, terms);
    }
    return out;
  }

  private static void add(Map<Object, List<String>> names, Object meaning, String name) {
    names.computeIfAbsent(meaning, m -> new ArrayList<>()).add(name);
  }

  private static void addGroups(List<Group> out, ObjectKind kind, Map<Object, List<String>> names) {
    names.values().stream()
        .filter(group -> group.size() > 1)
        .forEach(group -> out.add(new Group(kind, List.copyOf(group))));
  }
}
