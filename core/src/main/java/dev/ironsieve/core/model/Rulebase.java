package dev.ironsieve.core.model;

import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;

/**
 * Rules in order, with the zones and objects that they speak of. Every name that is mentioned
 * exists, no name or id stands twice, and no group contains itself.
 */
public record Rulebase(
    String name,
    List<Zone> zones,
    List<AddressObject> addresses,
    List<ServiceObject> services,
    List<Vocabulary> vocabularies,
    List<Section> sections) {
  /** Most rules in one rulebase. */
  public static final int MAX_RULES = 200_000;

  public Rulebase {
    name = Names.checkTitle("rulebase", name);
    zones = List.copyOf(zones);
    addresses = List.copyOf(addresses);
    services = List.copyOf(services);
    vocabularies = List.copyOf(vocabularies);
    sections = List.copyOf(sections);
    new RulebaseCheck(zones, addresses, services, vocabularies, sections).run();
  }

  /** A rulebase whose rules ask for zones, addresses and services only. */
  public Rulebase(
      String name,
      List<Zone> zones,
      List<AddressObject> addresses,
      List<ServiceObject> services,
      List<Section> sections) {
    this(name, zones, addresses, services, List.of(), sections);
  }

  public static Rulebase empty(String name) {
    Section first = new Section("first", "Rules", List.of());
    return new Rulebase(name, List.of(), List.of(), List.of(), List.of(), List.of(first));
  }

  /** All rules as the gateway reads them. */
  public List<Rule> rules() {
    return sections.stream().flatMap(section -> section.rules().stream()).toList();
  }

  public Rulebase withSections(List<Section> sections) {
    return new Rulebase(name, zones, addresses, services, vocabularies, sections);
  }

  /** With other zones, objects and rules; they change together, so that names keep fitting. */
  public Rulebase with(
      List<Zone> zones,
      List<AddressObject> addresses,
      List<ServiceObject> services,
      List<Section> sections) {
    return new Rulebase(name, zones, addresses, services, vocabularies, sections);
  }

  public Rulebase named(String name) {
    return new Rulebase(name, zones, addresses, services, vocabularies, sections);
  }

  /** The rules that mention {@code name}, themselves or through objects that mention it. */
  public List<Rule> rulesUsing(ObjectKind kind, String name) {
    Set<String> names = new HashSet<>(Set.of(Names.key(name)));
    boolean grown = kind != ObjectKind.ZONE;
    while (grown) {
      grown = false;
      for (Map.Entry<String, List<String>> group : groups(kind).entrySet()) {
        if (group.getValue().stream().anyMatch(names::contains)) {
          grown |= names.add(group.getKey());
        }
      }
    }
    return rules().stream()
        .filter(rule -> kind.namesIn(rule).stream().map(Names::key).anyMatch(names::contains))
        .toList();
  }

  private Map<String, List<String>> groups(ObjectKind kind) {
    return switch (kind) {
      case ZONE -> Map.of();
      case ADDRESS -> members(addresses, AddressObject::name, o -> namesOfAddresses(o.members()));
      case SERVICE -> members(services, ServiceObject::name, o -> namesOfServices(o.members()));
    };
  }

  private static <T> Map<String, List<String>> members(
      List<T> objects, Function<T, String> name, Function<T, List<String>> mentioned) {
    Map<String, List<String>> out = new LinkedHashMap<>();
    for (T object : objects) {
      out.put(
          Names.key(name.apply(object)), mentioned.apply(object).stream().map(Names::key).toList());
    }
    return out;
  }

  static List<String> namesOfAddresses(List<AddressItem> items) {
    return items.stream()
        .filter(AddressItem.Named.class::isInstance)
        .map(item -> ((AddressItem.Named) item).name())
        .toList();
  }

  static List<String> namesOfServices(List<ServiceItem> items) {
    return items.stream()
        .filter(ServiceItem.Named.class::isInstance)
        .map(item -> ((ServiceItem.Named) item).name())
        .toList();
  }
}
