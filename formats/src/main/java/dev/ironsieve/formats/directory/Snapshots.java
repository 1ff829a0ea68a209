package dev.ironsieve.formats.directory;

import dev.ironsieve.core.directory.Group;
import dev.ironsieve.core.directory.Person;
import dev.ironsieve.core.directory.Snapshot;
import dev.ironsieve.formats.Checked;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.directory.SnapshotDocument.GroupDocument;
import dev.ironsieve.formats.directory.SnapshotDocument.PersonDocument;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Reads and writes snapshots of a directory. */
public final class Snapshots {
  private Snapshots() {}

  /**
   * Reads one snapshot.
   *
   * @throws InvalidDocument with the JSON path of the first fault
   */
  public static Snapshot read(byte[] json) {
    SnapshotDocument document = Json.read(json, SnapshotDocument.class);
    Integer version = document.ironSieveDirectory();
    if (version == null || version != SnapshotDocument.VERSION) {
      throw new InvalidDocument(
          "$.ironSieveDirectory",
          SnapshotDocument.VERSION + "",
          version == null ? "nothing" : version + "");
    }
    List<Person> people = new ArrayList<>();
    for (PersonDocument p : document.people()) {
      people.add(
          Checked.at(
              "$.people[" + people.size() + "]",
              () ->
                  new Person(
                      p.id(), p.name(), p.attributes() == null ? Map.of() : p.attributes())));
    }
    List<Group> groups = new ArrayList<>();
    for (GroupDocument g : document.groups()) {
      groups.add(
          Checked.at(
              "$.groups[" + groups.size() + "]",
              () -> new Group(g.id(), g.name(), g.people(), g.groups())));
    }
    return Checked.at(
        "$", () -> new Snapshot(document.edition(), people, groups, document.remarks()));
  }

  /** A person's attributes are left out if there are none. */
  public static SnapshotDocument document(Snapshot snapshot) {
    return new SnapshotDocument(
        SnapshotDocument.VERSION,
        snapshot.edition(),
        snapshot.people().stream()
            .map(
                p ->
                    new PersonDocument(
                        p.id(), p.name(), p.attributes().isEmpty() ? null : p.attributes()))
            .toList(),
        snapshot.groups().stream()
            .map(g -> new GroupDocument(g.id(), g.name(), g.people(), g.groups()))
            .toList(),
        snapshot.remarks());
  }
}
