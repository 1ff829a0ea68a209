package dev.ironsieve.server.revision;

import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.difference.Difference.ChangedBox;
import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/** Counts how many recorded connections are in each part of a difference, and whose they are. */
final class RecordedEffect {
  /** Most people that are named for one part. */
  private static final int MOST_PEOPLE = 3;

  private final Map<ChangedBox, Map<String, Integer>> people =
      new IdentityHashMap<>(); // by name; "" for nobody

  /**
   * O(connections · parts).
   *
   * @param connections hosts, devices and times as they were
   */
  RecordedEffect(Difference difference, List<Connection> connections) {
    Matcher matcher = new Matcher(difference.after());
    for (Connection recorded : connections) {
      Connection named = matcher.withDefaults(matcher.named(recorded));
      difference
          .part(named)
          .ifPresent(
              part ->
                  people
                      .computeIfAbsent(part, any -> new TreeMap<>())
                      .merge(
                          recorded.terms().getOrDefault(Coordinate.PERSON, ""), 1, Integer::sum));
    }
  }

  /** How many recorded connections a part has. */
  int count(ChangedBox part) {
    return people.getOrDefault(part, Map.of()).values().stream().mapToInt(n -> n).sum();
  }

  /** The people with most of them, then the number of others, if there are any. */
  List<String> people(ChangedBox part) {
    Map<String, Integer> all = new LinkedHashMap<>(people.getOrDefault(part, Map.of()));
    all.remove("");
    List<String> out =
        new ArrayList<>(
            all.entrySet().stream()
                .sorted(Map.Entry.comparingByValue(Comparator.reverseOrder()))
                .limit(MOST_PEOPLE)
                .map(Map.Entry::getKey)
                .toList());
    if (all.size() > MOST_PEOPLE) {
      out.add("%d more".formatted(all.size() - MOST_PEOPLE));
    }
    return out;
  }
}
