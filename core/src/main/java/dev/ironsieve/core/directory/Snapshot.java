package dev.ironsieve.core.directory;

import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * The people and groups of a directory at one time. No id stands twice, and every person and group
 * that a group holds is there. Groups may hold each other in a loop; then all of them hold the same
 * people.
 *
 * @param edition such as {@code 2026-11-23 07:00}
 * @param people by id
 * @param groups by id
 * @param remarks oddities of the directory, in sentences
 */
public record Snapshot(
    String edition, List<Person> people, List<Group> groups, List<String> remarks) {
  /** Most people of one snapshot. */
  public static final int MAX_PEOPLE = 500_000;

  /** Most groups of one snapshot. */
  public static final int MAX_GROUPS = 100_000;

  public Snapshot {
    DirectoryNames.check("edition", edition);
    if (people.size() > MAX_PEOPLE || groups.size() > MAX_GROUPS) {
      throw new InvalidModel(
          "directory",
          "at most " + MAX_PEOPLE + " people and " + MAX_GROUPS + " groups",
          people.size() + " and " + groups.size());
    }
    people = people.stream().sorted(Comparator.comparing(p -> Names.key(p.id()))).toList();
    groups = groups.stream().sorted(Comparator.comparing(g -> Names.key(g.id()))).toList();
    remarks = List.copyOf(remarks);
    Map<String, Integer> knownPeople = numbers(people.stream().map(Person::id).toList(), "person");
    Map<String, Integer> knownGroups = numbers(groups.stream().map(Group::id).toList(), "group");
    for (Group group : groups) {
      check(group, group.people(), knownPeople, "person");
      check(group, group.groups(), knownGroups, "group");
    }
  }

  /** The place of each id, in small letters. */
  static Map<String, Integer> numbers(List<String> ids, String what) {
    Map<String, Integer> out = HashMap.newHashMap(ids.size());
    for (String id : ids) {
      if (out.put(Names.key(id), out.size()) != null) {
        throw new InvalidModel(what + " id", "each id once", '"' + id + "\" twice");
      }
    }
    return out;
  }

  private static void check(
      Group group, List<String> ids, Map<String, Integer> known, String what) {
    for (String id : ids) {
      if (!known.containsKey(Names.key(id))) {
        throw new InvalidModel(
            "group \"" + group.id() + '"', "the id of a " + what, '"' + id + '"');
      }
    }
  }

  /** The same people and groups under another name. */
  public Snapshot called(String other) {
    return new Snapshot(other, people, groups, remarks);
  }

  /** Names of groups each of which holds the next, and the last the first; none if none do. */
  public List<String> loop() {
    Map<String, Integer> numbers = numbers(groups.stream().map(Group::id).toList(), "group");
    boolean[] done = new boolean[groups.size()];
    int[] on = new int[groups.size()]; // place on the path, from 1; 0 if not on it
    for (int start = 0; start < groups.size(); start++) {
      Deque<Step> path = new ArrayDeque<>(); // the last first
      if (!done[start]) {
        enter(path, start, on);
      }
      while (!path.isEmpty()) {
        Step step = path.peek();
        List<String> inside = groups.get(step.group).groups();
        if (step.next == inside.size()) {
          done[step.group] = true;
          on[step.group] = 0;
          path.pop();
          continue;
        }
        int next = numbers.get(Names.key(inside.get(step.next++)));
        if (on[next] > 0) {
          List<String> names = new ArrayList<>();
          path.descendingIterator()
              .forEachRemaining(
                  s -> {
                    if (on[s.group] >= on[next]) {
                      names.add(groups.get(s.group).name());
                    }
                  });
          return names;
        }
        if (!done[next]) {
          enter(path, next, on);
        }
      }
    }
    return List.of();
  }

  private static void enter(Deque<Step> path, int group, int[] on) {
    path.push(new Step(group));
    on[group] = path.size();
  }

  /** A group on the path, and which of its groups is looked at next. */
  private static final class Step {
    final int group;
    int next;

    Step(int group) {
      this.group = group;
    }
  }
}
