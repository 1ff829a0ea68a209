package dev.ironsieve.core.directory;

import dev.ironsieve.core.model.Names;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The names of a snapshot's people in rules, both ways. Made in O(people); then O(1). */
public final class PersonNames {
  private final Map<String, String> nameById = new HashMap<>(); // by id in small letters
  private final Map<String, String> idByName = new HashMap<>();

  public PersonNames(Snapshot snapshot) {
    List<String> names = PersonVocabulary.names(snapshot);
    for (int i = 0; i < names.size(); i++) {
      String id = snapshot.people().get(i).id();
      nameById.put(Names.key(id), names.get(i));
      idByName.put(names.get(i), id);
    }
  }

  /** The name in rules of the person with a directory id. */
  public Optional<String> nameOf(String id) {
    return Optional.ofNullable(nameById.get(Names.key(id)));
  }

  /** The directory id of a person. */
  public Optional<String> idOf(String name) {
    return Optional.ofNullable(idByName.get(name));
  }
}
