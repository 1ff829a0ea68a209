package dev.ironsieve.core.model;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** What must hold for a rulebase as a whole; O(size of the rulebase). */
record RulebaseCheck(
    List<Zone> zones,
    List<AddressObject> addresses,
    List<ServiceObject> services,
    List<Vocabulary> vocabularies,
    List<Section> sections) {

  /** Deepest nesting of groups. */
  private static final int MAX_DEPTH = 100;

  void run() {
    Set<String> zoneNames = unique("zone", zones.stream().map(Zone::name).toList());
    Set<String> addressNames =
        unique("address", addresses.stream().map(AddressObject::name).toList());
    Set<String> serviceNames =
        unique("service", services.stream().map(ServiceObject::name).toList());
    Map<String, List<String>> addressGroups = new HashMap<>();
    for (AddressObject object : addresses) {
      List<String> names = Rulebase.namesOfAddresses(object.members());
      exist("address \"" + object.name() + "\"", "address", names, addressNames);
      addressGroups.put(Names.key(object.name()), names.stream().map(Names::key).toList());
    }
    Map<String, List<String>> serviceGroups = new HashMap<>();
    for (ServiceObject object : services) {
      List<String> names = Rulebase.namesOfServices(object.members());
      exist("service \"" + object.name() + "\"", "service", names, serviceNames);
      serviceGroups.put(Names.key(object.name()), names.stream().map(Names::key).toList());
    }
    refuseCycles("address", addressGroups);
    refuseCycles("service", serviceGroups);
    checkRules(zoneNames, addressNames, serviceNames, vocabulary());
  }

  private Map<Coordinate, Set<String>> vocabulary() {
    Map<Coordinate, Set<String>> known = new EnumMap<>(Coordinate.class);
    for (Vocabulary vocabulary : vocabularies) {
      if (known.put(vocabulary.coordinate(), vocabulary.meanings().keySet()) != null) {
        throw new InvalidModel(
            "vocabularies", "each coordinate once", vocabulary.coordinate().word() + " twice");
      }
    }
    return known;
  }

  private void checkRules(
      Set<String> zones,
      Set<String> addresses,
      Set<String> services,
      Map<Coordinate, Set<String>> terms) {
    Set<String> sectionIds = new HashSet<>();
    Set<String> ruleIds = new HashSet<>();
    for (Section section : sections) {
      if (!sectionIds.add(section.id())) {
        throw new InvalidModel("sections", "each id once", "\"" + section.id() + "\" twice");
      }
      for (Rule rule : section.rules()) {
        if (!ruleIds.add(rule.id())) {
          throw new InvalidModel("rules", "each id once", "\"" + rule.id() + "\" twice");
        }
        String place = "rule \"" + rule.name() + "\"";
        exist(place, "zone", ObjectKind.ZONE.namesIn(rule), zones);
        exist(place, "address", ObjectKind.ADDRESS.namesIn(rule), addresses);
        exist(place, "service", ObjectKind.SERVICE.namesIn(rule), services);
        rule.terms()
            .forEach(
                (coordinate, criterion) ->
                    exist(
                        place,
                        coordinate.word(),
                        criterion.mentioned(),
                        terms.getOrDefault(coordinate, Set.of())));
      }
    }
    if (ruleIds.size() > Rulebase.MAX_RULES) {
      throw new InvalidModel("rules", "at most " + Rulebase.MAX_RULES, ruleIds.size() + "");
    }
  }

  private static Set<String> unique(String kind, List<String> names) {
    Set<String> keys = new HashSet<>();
    for (String name : names) {
      if (!keys.add(Names.key(name))) {
        throw new InvalidModel(kind + " names", "each name once", "\"" + name + "\" twice");
      }
    }
    return keys;
  }

  private static void exist(String place, String kind, List<String> names, Set<String> known) {
    for (String name : names) {
      if (!known.contains(Names.key(name))) {
        throw new InvalidModel(place, "a known " + kind, Names.quoted(name));
      }
    }
  }

  private static void refuseCycles(String kind, Map<String, List<String>> groups) {
    Map<String, Integer> depths = new HashMap<>();
    for (String name : groups.keySet()) {
      depth(kind, name, groups, depths, new ArrayDeque<>());
    }
  }

  /** Levels of groups below and including {@code name}; throws if they never end. */
  private static int depth(
      String kind,
      String name,
      Map<String, List<String>> groups,
      Map<String, Integer> depths,
      Deque<String> path) {
    if (path.contains(name)) {
      path.addLast(name);
      String shown = String.join(" > ", path.stream().dropWhile(n -> !n.equals(name)).toList());
      throw new InvalidModel(kind + " groups", "no group inside itself", shown);
    }
    Integer known = depths.get(name);
    if (known != null) {
      return known;
    }
    path.addLast(name);
    int depth = 1;
    for (String member : groups.get(name)) {
      int below = path.size() > MAX_DEPTH ? MAX_DEPTH : depth(kind, member, groups, depths, path);
      depth = Math.max(depth, 1 + below);
    }
    path.removeLast();
    if (depth > MAX_DEPTH) {
      throw new InvalidModel(kind + " groups", "at most " + MAX_DEPTH + " levels", "more");
    }
    depths.put(name, depth);
    return depth;
  }
}
