package dev.ironsieve.core.rulebase;

import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The groups of one kind of object, to be checked: none contains itself, none is nested too deeply,
 * and all together do not resolve to more members than {@link Rulebase#MAX_RESOLVED}.
 */
final class Groups {
  /**
   * @param members how many members it has itself, groups among them
   * @param groups keys of the members that are objects
   */
  private record Group(String name, long members, List<String> groups) {}

  private final String kind;
  private final Map<String, Group> groups = new HashMap<>(); // by key

  /**
   * @param kind word for the objects, as in {@code address}
   */
  Groups(String kind) {
    this.kind = kind;
  }

  /**
   * @param members how many members the object has itself, groups among them
   * @param names of its members that are objects
   */
  void add(String name, long members, List<String> names) {
    groups.put(Names.key(name), new Group(name, members, names.stream().map(Names::key).toList()));
  }

  /**
   * O(groups + their members) for depth and cycles, at most O({@link Rulebase#MAX_RESOLVED}) for
   * what they resolve to.
   *
   * @throws InvalidModel that names the group at fault
   */
  void check() {
    Map<String, Integer> depths = new HashMap<>();
    groups.keySet().forEach(key -> depth(key, depths, new ArrayDeque<>()));
    long all = 0;
    for (Group group : groups.values()) {
      if (!group.groups().isEmpty()) {
        all += resolved(group, Rulebase.MAX_RESOLVED - all);
        if (all > Rulebase.MAX_RESOLVED) {
          throw new InvalidModel(
              kind + " \"" + group.name() + "\"",
              "groups that resolve to at most " + Rulebase.MAX_RESOLVED + " members together",
              "more");
        }
      }
    }
  }

  /** The number of members of a group, direct or through others, each once; stops past a limit. */
  private long resolved(Group group, long most) {
    Set<Group> seen = new HashSet<>();
    List<Group> next = new ArrayList<>(List.of(group));
    long count = 0;
    while (!next.isEmpty() && count <= most) {
      Group one = next.removeLast();
      if (seen.add(one)) {
        count += one.members();
        one.groups().forEach(key -> next.add(groups.get(key)));
      }
    }
    return count;
  }

  /** Levels of groups below and including {@code key}; throws if they never end. */
  private int depth(String key, Map<String, Integer> depths, Deque<String> path) {
    if (path.contains(key)) {
      path.addLast(key);
      String shown = String.join(" > ", path.stream().dropWhile(n -> !n.equals(key)).toList());
      throw new InvalidModel(kind + " groups", "no group inside itself", shown);
    }
    Integer known = depths.get(key);
    if (known != null) {
      return known;
    }
    path.addLast(key);
    int depth = 1;
    for (String member : groups.get(key).groups()) {
      boolean tooDeep = path.size() > Rulebase.MAX_DEPTH;
      depth = Math.max(depth, 1 + (tooDeep ? Rulebase.MAX_DEPTH : depth(member, depths, path)));
    }
    path.removeLast();
    if (depth > Rulebase.MAX_DEPTH) {
      throw new InvalidModel(
          kind + " groups",
          "at most " + Rulebase.MAX_DEPTH + " levels",
          "more, above \"" + groups.get(key).name() + "\"");
    }
    depths.put(key, depth);
    return depth;
  }
}
