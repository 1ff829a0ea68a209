package dev.ironsieve.server.directory;

import dev.ironsieve.core.directory.Group;
import dev.ironsieve.core.directory.Person;
import dev.ironsieve.core.directory.PersonVocabulary;
import dev.ironsieve.core.directory.Snapshot;
import dev.ironsieve.core.model.Names;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Finds people of a snapshot by anything that is known of them. Made once for a snapshot, in
 * O(people · groups of each); a search then is O(people).
 */
final class PeopleSearch {
  private final Snapshot snapshot;
  private final List<PersonEntry> entries = new ArrayList<>();
  private final List<String> texts = new ArrayList<>(); // in small letters, by entry
  private final Map<String, List<Group>> holders = new HashMap<>(); // of people, by id
  private final Map<String, List<Group>> outer = new HashMap<>(); // of groups, by id

  PeopleSearch(Snapshot snapshot) {
    this.snapshot = snapshot;
    for (Group group : snapshot.groups()) {
      group.people().forEach(id -> add(holders, id, group));
      group.groups().forEach(id -> add(outer, id, group));
    }
    List<String> names = PersonVocabulary.names(snapshot);
    for (int i = 0; i < names.size(); i++) {
      PersonEntry entry = entry(snapshot.people().get(i), names.get(i));
      entries.add(entry);
      texts.add(words(entry));
    }
  }

  Snapshot snapshot() {
    return snapshot;
  }

  private static void add(Map<String, List<Group>> into, String id, Group group) {
    into.computeIfAbsent(Names.key(id), k -> new ArrayList<>()).add(group);
  }

  People find(String text, int limit) {
    List<String> words = List.of(Names.key(text.strip()).split("\\s+"));
    List<PersonEntry> fitting = new ArrayList<>();
    for (int i = 0; i < entries.size(); i++) {
      if (words.stream().allMatch(texts.get(i)::contains)) {
        fitting.add(entries.get(i));
      }
    }
    String start = Names.key(text.strip());
    fitting.sort(
        Comparator.comparing((PersonEntry p) -> !Names.key(p.name()).startsWith(start))
            .thenComparing(p -> Names.key(p.name())));
    return new People(
        entries.size(),
        fitting.size(),
        fitting.subList(0, Math.min(limit, fitting.size())),
        snapshot.groups().stream().map(Group::name).sorted().toList(),
        snapshot.remarks());
  }

  private PersonEntry entry(Person person, String name) {
    Map<String, PersonGroup> groups = new LinkedHashMap<>();
    hold(holders.getOrDefault(Names.key(person.id()), List.of()), groups);
    return new PersonEntry(person.id(), name, person.attributes(), List.copyOf(groups.values()));
  }

  /** Adds groups, then those around them, the nearest way to each. */
  private void hold(List<Group> near, Map<String, PersonGroup> into) {
    record Way(Group group, List<String> through) {}
    List<Way> next = new ArrayList<>();
    near.forEach(group -> next.add(new Way(group, List.of())));
    for (int i = 0; i < next.size(); i++) {
      Way way = next.get(i);
      if (into.putIfAbsent(way.group.id(), new PersonGroup(way.group.name(), way.through))
          == null) {
        List<String> longer = new ArrayList<>(way.through);
        longer.add(way.group.name());
        for (Group around : outer.getOrDefault(Names.key(way.group.id()), List.of())) {
          next.add(new Way(around, List.copyOf(longer)));
        }
      }
    }
  }

  private static String words(PersonEntry entry) {
    StringBuilder out = new StringBuilder(entry.id()).append('\n').append(entry.name());
    entry.groups().forEach(group -> out.append('\n').append(group.name()));
    entry
        .attributes()
        .forEach((attribute, values) -> values.forEach(v -> out.append('\n').append(v)));
    return Names.key(out.toString());
  }
}
