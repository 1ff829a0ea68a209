package dev.ironsieve.core.vocabulary;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.SitePattern;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Validity;
import dev.ironsieve.core.model.Vocabulary;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/**
 * The vocabularies of sites, times and devices, derived from the items of a rulebase's rules and
 * objects; and of file kinds, if rules use any. They depend on these items, so an edit with a new
 * item derives others.
 */
public final class DerivedVocabularies {
  private final Map<Coordinate, Set<String>> names = new EnumMap<>(Coordinate.class); // of objects
  private final Map<Coordinate, Map<String, String>> literals; // as written, by key
  private final Map<Coordinate, Set<String>> toldApart =
      new EnumMap<>(Coordinate.class); // keys of items outside objects
  private final Map<Coordinate, Set<String>> members = new EnumMap<>(Coordinate.class);
  private final List<Vocabulary> vocabularies = new ArrayList<>();
  private final boolean filesPinned;
  private final boolean knowsFiles; // since a rule says something of them

  /**
   * Derives the vocabularies.
   *
   * @param pinned vocabularies from outside; none is derived for their coordinates
   * @param feeds those of hosts count as host lists
   * @param gateway the default time zone of times
   * @param others items of another rulebase, for which classes are needed too
   */
  public DerivedVocabularies(
      List<Vocabulary> pinned,
      List<TermObject> objects,
      List<Feed> feeds,
      List<Rule> rules,
      ZoneId gateway,
      Map<Coordinate, Set<String>> others) {
    List<FeedSet.Hosts> hostSets = new ArrayList<>();
    for (TermObject list : of(ObjectKind.HOST_LIST, objects)) {
      hostSets.add(new FeedSet.Hosts(list.name(), patterns(list.members())));
    }
    for (Feed feed : feeds) {
      for (FeedSet set : feed.sets()) {
        if (set instanceof FeedSet.Hosts hosts) {
          hostSets.add(hosts);
        }
      }
    }
    List<TermObject> schedules = of(ObjectKind.SCHEDULE, objects);
    List<TermObject> states = of(ObjectKind.DEVICE_STATE, objects);
    takeNames(pinned, ObjectKind.HOST_LIST, hostSets.stream().map(FeedSet::name).toList());
    takeNames(pinned, ObjectKind.SCHEDULE, schedules.stream().map(TermObject::name).toList());
    takeNames(pinned, ObjectKind.DEVICE_STATE, states.stream().map(TermObject::name).toList());
    literals = literals(rules);
    for (Coordinate coordinate : names.keySet()) {
      Map<String, String> apart = new TreeMap<>(literals.get(coordinate)); // by key
      others
          .getOrDefault(coordinate, Set.of())
          .forEach(other -> apart.putIfAbsent(Names.key(other), other));
      toldApart.put(coordinate, apart.keySet());
      List<String> sorted = List.copyOf(apart.values());
      Set<String> all = new HashSet<>(sorted);
      members.put(coordinate, all);
      switch (coordinate) {
        case SITE -> hostSets.forEach(set -> all.addAll(set.members()));
        case TIME -> schedules.forEach(schedule -> all.addAll(schedule.members()));
        case DEVICE -> states.forEach(state -> all.addAll(state.members()));
        case PERSON, APPLICATION, FILE_KIND -> throw new IllegalStateException("not written");
      }
      if (!all.isEmpty()) {
        vocabularies.add(
            switch (coordinate) {
              case SITE -> SiteVocabulary.of(hostSets, sorted);
              case TIME -> TimeVocabulary.of(schedules, sorted, gateway);
              case DEVICE -> DeviceVocabulary.of(states, sorted);
              case PERSON, APPLICATION, FILE_KIND -> throw new IllegalStateException("not written");
            });
      }
    }
    filesPinned = pinned.stream().anyMatch(v -> v.coordinate() == Coordinate.FILE_KIND);
    knowsFiles = !filesPinned && (others.containsKey(Coordinate.FILE_KIND) || saysFiles(rules));
    if (knowsFiles) {
      vocabularies.add(FileKinds.vocabulary());
      toldApart.put(Coordinate.FILE_KIND, Set.of());
      members.put(Coordinate.FILE_KIND, Set.of());
    }
  }

  /**
   * The vocabularies of coordinates without a source from outside, for a rulebase whose rules do
   * not use them: a connection may name a host, which affects nothing.
   */
  public static Map<Coordinate, Vocabulary> unused() {
    return Map.of(
        Coordinate.SITE, SiteVocabulary.of(List.of(), List.of()),
        Coordinate.TIME, TimeVocabulary.of(List.of(), List.of(), GatewaySettings.UTC),
        Coordinate.DEVICE, DeviceVocabulary.of(List.of(), List.of()),
        Coordinate.FILE_KIND, FileKinds.vocabulary());
  }

  private static boolean saysFiles(List<Rule> rules) {
    return rules.stream().anyMatch(rule -> rule.terms().containsKey(Coordinate.FILE_KIND));
  }

  private static List<TermObject> of(ObjectKind kind, List<TermObject> objects) {
    return objects.stream().filter(object -> object.kind() == kind).toList();
  }

  private static Set<SitePattern> patterns(List<String> members) {
    Set<SitePattern> out = new LinkedHashSet<>();
    members.forEach(member -> out.add(SitePattern.parse(member)));
    return out;
  }

  /** Notes the names of one kind, unless what they are of comes with an edition. */
  private void takeNames(List<Vocabulary> pinned, ObjectKind kind, List<String> own) {
    Coordinate coordinate = kind.coordinate();
    if (pinned.stream().noneMatch(vocabulary -> vocabulary.coordinate() == coordinate)) {
      names.put(coordinate, Names.unique(kind.word(), own));
    } else if (!own.isEmpty()) {
      throw new InvalidModel(
          kind.word() + " \"" + own.getFirst() + "\"",
          "either such objects or a " + coordinate.word() + " vocabulary",
          "both");
    }
  }

  private Map<Coordinate, Map<String, String>> literals(List<Rule> rules) {
    Map<Coordinate, Map<String, String>> out = new EnumMap<>(Coordinate.class);
    names.keySet().forEach(coordinate -> out.put(coordinate, new LinkedHashMap<>()));
    for (Rule rule : rules) {
      if (rule.terms().isEmpty() && rule.validity().equals(Validity.ALWAYS)) {
        continue;
      }
      names.forEach(
          (coordinate, keys) -> {
            for (String said : rule.mentioned(coordinate)) {
              String key = Names.key(said);
              if (!keys.contains(key)
                  && !out.get(coordinate).containsKey(key)
                  && TermObject.isLiteral(coordinate, said)) {
                out.get(coordinate).put(key, said);
              }
            }
          });
    }
    return out;
  }

  /**
   * Whether other rules say just the same; mostly O(rules that differ).
   *
   * @param before rules that do
   */
  public boolean isOf(List<Rule> before, List<Rule> rules) {
    int most = Math.min(before.size(), rules.size());
    int start = 0;
    while (start < most && before.get(start) == rules.get(start)) {
      start++;
    }
    int same = 0; // at the end
    while (same < most - start
        && before.get(before.size() - 1 - same) == rules.get(rules.size() - 1 - same)) {
      same++;
    }
    List<Rule> gone = before.subList(start, before.size() - same);
    List<Rule> fresh = rules.subList(start, rules.size() - same);
    Map<Coordinate, Map<String, String>> were = literals(gone);
    Map<Coordinate, Map<String, String>> are = literals(fresh);
    return names.keySet().stream().allMatch(c -> were.get(c).keySet().equals(are.get(c).keySet()))
            && (filesPinned || saysFiles(gone) == saysFiles(fresh))
        || isOf(rules);
  }

  private boolean isOf(List<Rule> rules) {
    Map<Coordinate, Map<String, String>> said = literals(rules);
    return names.keySet().stream()
            .allMatch(c -> said.get(c).keySet().equals(literals.get(c).keySet()))
        && (filesPinned || knowsFiles == saysFiles(rules));
  }

  /** Whether all items of the other, outside objects, are items here. */
  public boolean saysAllOf(DerivedVocabularies other) {
    return other.toldApart.entrySet().stream()
        .allMatch(
            there -> {
              Set<String> here = toldApart.get(there.getKey());
              return here != null && here.containsAll(there.getValue());
            });
  }

  /** Every host, time and device state, in rules or objects. */
  public Map<Coordinate, Set<String>> members() {
    return members;
  }

  /** All vocabularies, in the order of their coordinates. */
  public List<Vocabulary> with(List<Vocabulary> pinned) {
    List<Vocabulary> out = new ArrayList<>(pinned);
    out.addAll(vocabularies);
    if (!vocabularies.isEmpty()) {
      out.sort(Comparator.comparing(Vocabulary::coordinate));
    }
    return List.copyOf(out);
  }
}
