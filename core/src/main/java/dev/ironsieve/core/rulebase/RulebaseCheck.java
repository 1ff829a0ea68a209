package dev.ironsieve.core.rulebase;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Notice;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;

/**
 * Checks the conditions on a rulebase as a whole. Made for its zones and objects, O(their size), it
 * knows the names that rules may mention, and serves every rulebase with the same zones and
 * objects.
 */
final class RulebaseCheck {
  /** Where something can be said that has no name. */
  private static final Map<Coordinate, String> EXPECTED =
      Map.of(
          Coordinate.SITE,
          "host list or category, or a host such as www.quay.example or *.quay.example",
          Coordinate.TIME,
          "schedule, or a time such as weekdays 06:00-22:00 or 2026-12-24",
          Coordinate.DEVICE,
          "device state, or facts such as managed, has disk-lock");

  private static final String USUAL_PORTS = '"' + ServiceItem.UsualPorts.TEXT + '"';

  private final Set<String> zoneNames;
  private final Set<String> addressNames;
  private final Set<String> serviceNames;
  private final Set<String> ratePlanNames;
  private final Set<String> noticeNames;
  private final Map<Coordinate, Set<String>> termNames;
  private final boolean knowsPorts; // of applications

  private final List<Vocabulary> vocabularies;

  /**
   * @param rulebase whose zones, objects and vocabularies are there; its rules are not looked at
   * @param before of another state, some of whose vocabularies may be the same; or null
   */
  RulebaseCheck(Rulebase rulebase, RulebaseCheck before) {
    List<AddressObject> addresses = rulebase.addresses();
    List<ServiceObject> services = rulebase.services();
    refuseTooMany("zones", rulebase.zones());
    refuseTooMany("addresses", addresses);
    refuseTooMany("services", services);
    for (ObjectKind kind : ObjectKind.values()) {
      if (kind.coordinate() != null) {
        refuseTooMany(kind.word() + "s", rulebase.termObjects(kind));
      }
    }
    refuseTooMany("rate plans", rulebase.gatewaySettings().ratePlans());
    refuseTooMany("notices", rulebase.gatewaySettings().notices());
    zoneNames = Names.unique("zone", rulebase.zones().stream().map(Zone::name).toList());
    addressNames =
        Names.unique(
            "address",
            Stream.concat(
                    addresses.stream().map(AddressObject::name),
                    rulebase.feeds().stream()
                        .filter(feed -> feed.kind().objects() == ObjectKind.ADDRESS)
                        .flatMap(feed -> feed.sets().stream())
                        .map(FeedSet::name))
                .toList());
    serviceNames = Names.unique("service", services.stream().map(ServiceObject::name).toList());
    GatewaySettings gatewaySettings = rulebase.gatewaySettings();
    ratePlanNames =
        Names.unique(
            "rate plan", gatewaySettings.ratePlans().stream().map(RatePlan::name).toList());
    noticeNames =
        Names.unique("notice", gatewaySettings.notices().stream().map(Notice::name).toList());
    Names.unique("feed", rulebase.feeds().stream().map(Feed::name).toList());
    Groups addressGroups = new Groups("address");
    rulebase.feeds().stream()
        .flatMap(feed -> feed.sets().stream())
        .filter(FeedSet.Addresses.class::isInstance)
        .map(FeedSet.Addresses.class::cast)
        .forEach(set -> addressGroups.add(set.name(), set.addresses().ranges().size(), List.of()));
    for (AddressObject object : addresses) {
      List<String> names = AddressItem.names(object.members());
      exist("address \"" + object.name() + "\"", "address", names, addressNames);
      addressGroups.add(object.name(), object.members().size(), names);
    }
    Groups serviceGroups = new Groups("service");
    for (ServiceObject object : services) {
      List<String> names = ServiceItem.names(object.members());
      exist("service \"" + object.name() + "\"", "service", names, serviceNames);
      serviceGroups.add(object.name(), object.members().size(), names);
    }
    addressGroups.check();
    serviceGroups.check();
    vocabularies = rulebase.vocabularies();
    termNames = termNames(vocabularies, before);
    knowsPorts = vocabularies.stream().anyMatch(v -> !v.applications().isEmpty());
  }

  private static Map<Coordinate, Set<String>> termNames(
      List<Vocabulary> vocabularies, RulebaseCheck before) {
    Map<Coordinate, Set<String>> known = new EnumMap<>(Coordinate.class);
    for (Vocabulary vocabulary : vocabularies) {
      Coordinate coordinate = vocabulary.coordinate();
      boolean same = before != null && before.vocabularies.stream().anyMatch(v -> v == vocabulary);
      Set<String> names = same ? before.termNames.get(coordinate) : vocabulary.meanings().keySet();
      if (known.put(coordinate, names) != null) {
        throw new InvalidModel(
            "vocabularies", "each coordinate once", vocabulary.coordinate().word() + " twice");
      }
    }
    return known;
  }

  /** Whether every rule that is right where the other was made is right here too. */
  boolean knowsAllOf(RulebaseCheck other) {
    return zoneNames.containsAll(other.zoneNames)
        && addressNames.containsAll(other.addressNames)
        && serviceNames.containsAll(other.serviceNames)
        && ratePlanNames.containsAll(other.ratePlanNames)
        && noticeNames.containsAll(other.noticeNames)
        && (knowsPorts || !other.knowsPorts)
        && other.termNames.entrySet().stream()
            .allMatch(
                there -> {
                  Set<String> here = termNames.getOrDefault(there.getKey(), Set.of());
                  return here == there.getValue() || here.containsAll(there.getValue());
                });
  }

  /** Checks the sections by themselves. */
  void sections(List<Section> sections) {
    if (sections.size() > Rulebase.MAX_SECTIONS) {
      throw new InvalidModel("sections", "at most " + Rulebase.MAX_SECTIONS, sections.size() + "");
    }
    Set<String> ids = new HashSet<>();
    for (Section section : sections) {
      if (!ids.add(section.id())) {
        throw new InvalidModel("sections", "each id once", "\"" + section.id() + "\" twice");
      }
    }
  }

  /**
   * Checks rules of which some were checked before; O(rules), and little for each of those.
   *
   * @param before rules that were found right, and are right here too
   */
  void rules(List<Rule> rules, List<Rule> before) {
    if (rules.size() > Rulebase.MAX_RULES) {
      throw new InvalidModel("rules", "at most " + Rulebase.MAX_RULES, rules.size() + "");
    }
    int most = Math.min(rules.size(), before.size());
    int start = 0;
    while (start < most && rules.get(start) == before.get(start)) {
      start++;
    }
    int same = 0; // at the end
    while (same < most - start
        && rules.get(rules.size() - 1 - same) == before.get(before.size() - 1 - same)) {
      same++;
    }
    int end = rules.size() - same;
    Set<String> fresh = new HashSet<>();
    for (Rule rule : rules.subList(start, end)) {
      if (!fresh.add(rule.id())) {
        throw twice(rule);
      }
      checkNames(rule);
    }
    before.subList(start, before.size() - same).forEach(rule -> fresh.remove(rule.id()));
    for (int i = 0; i < rules.size() && !fresh.isEmpty(); i++) {
      if ((i < start || i >= end) && fresh.contains(rules.get(i).id())) {
        throw twice(rules.get(i));
      }
    }
  }

  private static InvalidModel twice(Rule rule) {
    return new InvalidModel("rules", "each id once", "\"" + rule.id() + "\" twice");
  }

  private void checkNames(Rule rule) {
    String place = "rule \"" + rule.name() + "\"";
    exist(place, "zone", ObjectKind.ZONE.namesIn(rule), zoneNames);
    exist(place, "address", ObjectKind.ADDRESS.namesIn(rule), addressNames);
    exist(place, "service", ObjectKind.SERVICE.namesIn(rule), serviceNames);
    exist(place, "rate plan", ObjectKind.RATE_PLAN.namesIn(rule), ratePlanNames);
    exist(place, "notice", ObjectKind.NOTICE.namesIn(rule), noticeNames);
    if (!knowsPorts && rule.services().mentioned().contains(new ServiceItem.UsualPorts())) {
      throw new InvalidModel(
          place, "services; nothing is known of the ports of applications", USUAL_PORTS);
    }
    for (Coordinate coordinate : Coordinate.values()) {
      exist(
          place,
          EXPECTED.getOrDefault(coordinate, coordinate.word()),
          rule.mentioned(coordinate),
          termNames.getOrDefault(coordinate, Set.of()));
    }
  }

  private static void exist(String place, String kind, List<String> names, Set<String> known) {
    for (String name : names) {
      if (!known.contains(Names.key(name))) {
        throw new InvalidModel(place, "a known " + kind, Names.quoted(name));
      }
    }
  }

  private static void refuseTooMany(String what, List<?> objects) {
    if (objects.size() > Rulebase.MAX_OBJECTS) {
      throw new InvalidModel(what, "at most " + Rulebase.MAX_OBJECTS, objects.size() + "");
    }
  }
}
