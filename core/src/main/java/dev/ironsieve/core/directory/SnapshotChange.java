package dev.ironsieve.core.directory;

import dev.ironsieve.core.edition.EditionChange;
import dev.ironsieve.core.model.Names;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;

/** Compares snapshots of the directory. */
public final class SnapshotChange {
  /**
   * The compared parts of a person.
   *
   * @param groups names of the groups with the person as a direct member
   */
  private record Seen(Person person, String called, List<String> groups) {}

  private SnapshotChange() {}

  /** People are the same by id; O(people + members). */
  public static EditionChange between(Snapshot before, Snapshot after) {
    return EditionChange.between(
        seen(before), seen(after), Seen::called, SnapshotChange::differences);
  }

  private static Map<String, Seen> seen(Snapshot snapshot) {
    Map<String, TreeSet<String>> groups = new HashMap<>();
    for (Group group : snapshot.groups()) {
      for (String id : group.people()) {
        groups.computeIfAbsent(Names.key(id), k -> new TreeSet<>()).add(group.name());
      }
    }
    List<String> names = PersonVocabulary.names(snapshot);
    Map<String, Seen> out = new LinkedHashMap<>();
    for (int i = 0; i < names.size(); i++) {
      Person person = snapshot.people().get(i);
      String key = Names.key(person.id());
      out.put(
          key,
          new Seen(person, names.get(i), List.copyOf(groups.getOrDefault(key, new TreeSet<>()))));
    }
    return out;
  }

  private static List<String> differences(Seen was, Seen is) {
    List<String> out = new ArrayList<>();
    EditionChange.say(out, "name", was.called, is.called);
    EditionChange.say(out, "groups", was.groups, is.groups);
    TreeSet<String> attributes = new TreeSet<>(was.person.attributes().keySet());
    attributes.addAll(is.person.attributes().keySet());
    for (String attribute : attributes) {
      EditionChange.say(
          out,
          attribute,
          was.person.attributes().getOrDefault(attribute, List.of()),
          is.person.attributes().getOrDefault(attribute, List.of()));
    }
    return List.copyOf(out);
  }
}
