package dev.ironsieve.core.space;

import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.vocabulary.ValueFinder;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * The sites that look alike in a sealed connection: for each host of which some value has a path,
 * the values of that host. Computed at the first call; several threads may call at once.
 */
final class HostGroups {
  private final Vocabulary sites;
  private final ValueFinder finder;
  private volatile List<IntSet> groups; // null until the first call

  HostGroups(Vocabulary sites, ValueFinder finder) {
    this.sites = sites;
    this.finder = finder;
  }

  /** The numbers of the values of each such host, at least two. O(values) the first time. */
  List<IntSet> groups() {
    if (groups == null) {
      groups = computed();
    }
    return groups;
  }

  private List<IntSet> computed() {
    Map<String, List<Integer>> withPath = new HashMap<>(); // values by host
    Map<String, Integer> numbers = new HashMap<>();
    for (String name : sites.values()) {
      int slash = name.indexOf('/');
      if (slash >= 0) {
        withPath
            .computeIfAbsent(name.substring(0, slash), host -> new ArrayList<>())
            .add(numbers.size());
      }
      numbers.put(name, numbers.size());
    }
    List<IntSet> out = new ArrayList<>();
    withPath.forEach(
        (host, values) -> {
          IntSet.Builder paths = new IntSet.Builder();
          values.forEach(value -> paths.addInOrder(value, value));
          // The rest of the host belongs to the narrowest pattern that contains the host.
          IntSet rest = finder.value(host).map(v -> IntSet.of(numbers.get(v))).orElse(IntSet.EMPTY);
          out.add(paths.build().union(rest));
        });
    return List.copyOf(out);
  }
}
