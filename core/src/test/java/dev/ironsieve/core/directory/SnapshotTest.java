package dev.ironsieve.core.directory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.edition.EditionChange;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;

class SnapshotTest {
  private static Person person(String id, String name) {
    return new Person(id, name, Map.of());
  }

  private static Group group(String id, List<String> people, String... groups) {
    return new Group(id, id, people, List.of(groups));
  }

  private static Snapshot snapshot(List<Person> people, Group... groups) {
    return new Snapshot("e", people, List.of(groups), List.of());
  }

  private static Set<String> members(Vocabulary vocabulary, String term) {
    Set<String> out = new TreeSet<>();
    IntSet members = vocabulary.meanings().get(Names.key(term));
    assertThat(members).as(term).isNotNull();
    members.forEach(number -> out.add(vocabulary.values().get(number)));
    return out;
  }

  @Test
  void aGroupIsEverybodyInItAndInTheGroupsInsideIt() {
    Vocabulary vocabulary =
        PersonVocabulary.of(
            snapshot(
                List.of(person("a", "Ann"), person("b", "Ben"), person("c", "Cleo")),
                group("all", List.of("c"), "deck"),
                group("deck", List.of("B"), "mates"),
                group("mates", List.of("a")),
                group("none", List.of())));
    assertThat(vocabulary.values())
        .containsExactly("nobody signed in", "signed in but unlisted", "Ann", "Ben", "Cleo");
    assertThat(members(vocabulary, "all")).containsExactly("Ann", "Ben", "Cleo");
    assertThat(members(vocabulary, "deck")).containsExactly("Ann", "Ben");
    assertThat(members(vocabulary, "none")).isEmpty();
    assertThat(members(vocabulary, "any signed in"))
        .containsExactly("Ann", "Ben", "Cleo", "signed in but unlisted");
  }

  @Test
  void groupsInRandomNestingHoldWhoeverCanBeReached() {
    Random random = new Random(11);
    int loops = 0;
    for (int round = Rounds.of(300); round > 0; round--) {
      int groups = 1 + random.nextInt(9);
      List<Person> people = new ArrayList<>();
      for (int i = 0; i < 6; i++) {
        people.add(person("p" + i, "Person " + i));
      }
      List<Group> all = new ArrayList<>();
      for (int g = 0; g < groups; g++) {
        List<String> inside = new ArrayList<>();
        List<String> own = new ArrayList<>();
        for (int other = 0; other < groups; other++) {
          if (other != g && random.nextInt(groups) == 0) {
            inside.add("g" + other);
          }
        }
        people.stream().filter(p -> random.nextInt(5) == 0).forEach(p -> own.add(p.id()));
        all.add(new Group("g" + g, "g" + g, own, inside));
      }
      Snapshot snapshot = new Snapshot("e", people, all, List.of());
      Vocabulary vocabulary = PersonVocabulary.of(snapshot);
      boolean looped = false;
      for (Group group : all) {
        Set<String> reached = new HashSet<>();
        walk(group, all, reached);
        Set<String> expected = new TreeSet<>();
        for (Group other : all) {
          if (reached.contains(other.id()) || other == group) {
            other.people().forEach(id -> expected.add("Person " + id.substring(1)));
          }
        }
        assertThat(members(vocabulary, group.id())).as(all.toString()).isEqualTo(expected);
        looped |= reached.contains(group.id());
      }
      List<String> loop = snapshot.loop();
      assertThat(loop.isEmpty()).as(all.toString()).isEqualTo(!looped);
      for (int i = 0; i < loop.size(); i++) {
        String next = loop.get((i + 1) % loop.size());
        String here = loop.get(i);
        assertThat(all).anyMatch(g -> g.id().equals(here) && g.groups().contains(next));
      }
      loops += looped ? 1 : 0;
    }
    assertThat(loops).isPositive();
  }

  /** The groups inside a group, at any depth. */
  private static void walk(Group group, List<Group> all, Set<String> reached) {
    for (Group inside : all) {
      if (group.groups().contains(inside.id()) && reached.add(inside.id())) {
        walk(inside, all, reached);
      }
    }
  }

  @Test
  void aNestingDeeperThanAnyStackIsReadToItsEnd() {
    List<Group> groups = new ArrayList<>();
    int depth = 20_000;
    for (int i = 0; i < depth; i++) {
      boolean last = i == depth - 1;
      groups.add(
          new Group(
              "g" + i,
              "g" + i,
              last ? List.of("a") : List.of(),
              last ? List.of("g0") : List.of("g" + (i + 1))));
    }
    Snapshot snapshot = new Snapshot("e", List.of(person("a", "Ann")), groups, List.of());
    assertThat(snapshot.loop()).hasSize(depth);
  }

  @Test
  void peopleOfOneNameAreToldApartByTheirIds() {
    Snapshot snapshot =
        snapshot(
            List.of(
                person("m1", "Maya Lind"),
                person("m2", "maya lind"),
                person("x", "Any signed in"),
                person("d", "deck")),
            group("deck", List.of("d")));
    assertThat(PersonVocabulary.names(snapshot))
        .containsExactly("deck", "Maya Lind (m1)", "maya lind (m2)", "Any signed in (x)");
    PersonNames names = new PersonNames(snapshot);
    assertThat(names.nameOf("M2")).contains("maya lind (m2)");
    assertThat(names.idOf("Any signed in (x)")).contains("x");
    assertThat(names.idOf("Maya Lind")).isEmpty();
    assertThat(names.nameOf("m3")).isEmpty();
    Vocabulary vocabulary = PersonVocabulary.of(snapshot);
    assertThat(members(vocabulary, "deck (group)")).containsExactly("deck");
    assertThat(vocabulary.meanings()).doesNotContainKey("maya lind");
  }

  @Test
  void whatTheDirectorySaysOfPeopleCanBeSaidOfThem() {
    Vocabulary vocabulary =
        PersonVocabulary.of(
            snapshot(
                List.of(
                    new Person("a", "Ann", Map.of("title", List.of("mate", "clerk"))),
                    new Person("b", "Ben", Map.of("title", List.of("mate"))),
                    person("c", "Cleo"))));
    assertThat(members(vocabulary, "title is mate")).containsExactly("Ann", "Ben");
    assertThat(members(vocabulary, "title is clerk")).containsExactly("Ann");
    assertThat(members(vocabulary, "title is set")).containsExactly("Ann", "Ben");
  }

  @Test
  void aWordOfWhatTheDirectorySaysCanBeSaid() {
    Vocabulary vocabulary =
        PersonVocabulary.of(
            snapshot(
                List.of(
                    new Person("a", "Ann", Map.of("title", List.of("Chief mate, night"))),
                    new Person("b", "Ben", Map.of("title", List.of("MATE"))),
                    new Person("c", "Cleo", Map.of("title", List.of("purser"))),
                    new Person("d", "Dov", Map.of("title", List.of("mated"))))));
    assertThat(members(vocabulary, "title contains mate")).containsExactly("Ann", "Ben");
    assertThat(members(vocabulary, "title contains chief")).containsExactly("Ann");
    assertThat(members(vocabulary, "title contains night")).containsExactly("Ann");
    assertThat(vocabulary.meanings())
        .doesNotContainKeys("title contains ")
        .containsKeys("title contains purser", "title contains mated");
    assertThat(members(vocabulary, "title is Chief mate, night")).containsExactly("Ann");
  }

  @Test
  void tellsWhatAnotherSnapshotChanges() {
    Snapshot before =
        snapshot(
            List.of(person("a", "Ann"), person("b", "Ben"), person("c", "Cleo")),
            group("deck", List.of("a", "b")));
    Snapshot after =
        snapshot(
            List.of(
                new Person("A", "Ann", Map.of("title", List.of("mate"))),
                person("b", "Ben"),
                person("d", "Dov")),
            group("deck", List.of("b")),
            group("mates", List.of("a")));
    EditionChange change = SnapshotChange.between(before, after);
    assertThat(change.added()).containsExactly("Dov");
    assertThat(change.removed()).containsExactly("Cleo");
    assertThat(change.changed())
        .containsExactly(
            Map.entry("Ann", List.of("groups from deck to mates", "title from none to mate")));
    assertThat(SnapshotChange.between(after, after).changed()).isEmpty();
  }

  @Test
  void saysWhatCannotStand() {
    assertThatThrownBy(() -> snapshot(List.of(person("a", "Ann"), person("A", "Ben"))))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("each id once");
    assertThatThrownBy(() -> snapshot(List.of(), group("g", List.of("a"))))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("the id of a person");
    assertThatThrownBy(() -> snapshot(List.of(), group("g", List.of(), "h")))
        .hasMessageContaining("the id of a group");
    assertThatThrownBy(() -> person("a", "two\nlines")).hasMessageContaining("on one line");
    assertThatThrownBy(() -> new Person("a", "Ann", Map.of("title", List.of())))
        .hasMessageContaining("1 to 40 values");
  }
}
