package dev.ironsieve.server.directory;

import com.unboundid.ldap.sdk.Entry;
import dev.ironsieve.core.directory.Group;
import dev.ironsieve.core.directory.Person;
import dev.ironsieve.core.directory.Snapshot;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/** Makes a snapshot from the entries of a directory, and notes their faults. */
final class DirectoryEntries {
  private static final int MOST_TOLD = 3;

  private final DirectorySource source;
  private final Map<String, Person> people = new LinkedHashMap<>(); // by id in small letters
  private final Map<String, String> personIds = new HashMap<>(); // by normal distinguished name
  private final Set<String> shared = new HashSet<>(); // ids of several, in small letters
  private final Map<String, Entry> groups = new LinkedHashMap<>(); // by the same
  private final Map<String, List<String>> odd = new TreeMap<>(); // where, by what

  DirectoryEntries(DirectorySource source, List<Entry> people, List<Entry> groups) {
    this.source = source;
    people.forEach(this::addPerson);
    groups.forEach(this::addGroup);
  }

  private void addGroup(Entry entry) {
    String name = entry.getAttributeValue(source.groupName());
    if (name == null) {
      odd("Left out, since they have no " + source.groupName(), entry.getDN());
      return;
    }
    String dn = DirectoryReader.normal(entry.getDN());
    try {
      groups.put(new Group(dn, name, List.of(), List.of()).id(), entry);
    } catch (InvalidModel e) {
      odd("Left out, since " + e.getMessage(), entry.getDN());
    }
  }

  private void addPerson(Entry entry) {
    String id = entry.getAttributeValue(source.personId());
    String name = entry.getAttributeValue(source.personName());
    if (id == null || name == null) {
      String lacks = id == null ? source.personId() : source.personName();
      odd("Left out, since they have no " + lacks, entry.getDN());
      return;
    }
    Map<String, List<String>> attributes = new HashMap<>();
    for (String attribute : source.personAttributes()) {
      String[] values = entry.getAttributeValues(attribute);
      if (values != null) {
        attributes.put(attribute, List.of(values));
      }
    }
    Person person;
    try {
      person = new Person(id, name, attributes);
    } catch (InvalidModel e) {
      odd("Left out, since " + e.getMessage(), entry.getDN());
      return;
    }
    String key = Names.key(id);
    String dn = DirectoryReader.normal(entry.getDN());
    if (shared.contains(key) || people.putIfAbsent(key, person) != null) {
      shared.add(key);
      odd("Left out, since another has their " + source.personId(), entry.getDN());
      if (people.remove(key) != null) {
        personIds.values().removeIf(other -> Names.key(other).equals(key));
      }
      return;
    }
    personIds.put(dn, id);
  }

  private void odd(String what, String where) {
    odd.computeIfAbsent(what, k -> new ArrayList<>()).add(where);
  }

  /**
   * @throws DirectoryFault if there is nobody, which no directory means
   */
  Snapshot snapshot(String edition) throws DirectoryFault {
    if (people.isEmpty()) {
      throw new DirectoryFault(
          "Reading people: expected some below \""
              + source.base()
              + "\" that fit "
              + source.personFilter()
              + ", found none"
              + (odd.isEmpty() ? "." : ". " + String.join(" ", remarks())));
    }
    List<Group> made = new ArrayList<>();
    groups.forEach((dn, entry) -> made.add(group(dn, entry)));
    try {
      Snapshot snapshot = new Snapshot(edition, List.copyOf(people.values()), made, List.of());
      List<String> loop = snapshot.loop();
      if (!loop.isEmpty()) {
        odd(
            "Groups hold each other, so all of them have the same people",
            String.join(", which holds ", loop) + ", which holds " + loop.getFirst());
      }
      return new Snapshot(edition, snapshot.people(), snapshot.groups(), remarks());
    } catch (InvalidModel e) {
      throw new DirectoryFault("Putting it together: " + e.getMessage(), e);
    }
  }

  private Group group(String dn, Entry entry) {
    String name = entry.getAttributeValue(source.groupName());
    Set<String> own = new LinkedHashSet<>();
    Set<String> inside = new LinkedHashSet<>();
    for (String attribute : source.groupMembers()) {
      String[] members = entry.getAttributeValues(attribute);
      for (String member : members == null ? new String[0] : members) {
        String normal = member.indexOf('=') < 0 ? null : DirectoryReader.normal(member);
        Person byId = people.get(Names.key(member));
        if (normal != null && personIds.containsKey(normal)) {
          own.add(personIds.get(normal));
        } else if (normal != null && groups.containsKey(normal)) {
          inside.add(normal);
        } else if (byId != null) {
          own.add(byId.id());
        } else {
          odd("Not counted, since they are nobody here, as members of " + name, member);
        }
      }
    }
    return new Group(dn, name, List.copyOf(own), List.copyOf(inside));
  }

  private List<String> remarks() {
    List<String> out = new ArrayList<>();
    odd.forEach(
        (what, where) -> {
          List<String> told = where.subList(0, Math.min(MOST_TOLD, where.size()));
          int more = where.size() - told.size();
          out.add(
              what + ": " + String.join("; ", told) + (more > 0 ? " and " + more + " more." : "."));
        });
    return out;
  }
}
