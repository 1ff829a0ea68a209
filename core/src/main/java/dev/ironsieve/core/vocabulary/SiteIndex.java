package dev.ironsieve.core.vocabulary;

import dev.ironsieve.core.model.SitePattern;
import dev.ironsieve.core.sets.IntSet;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Finds the value of a {@link SiteVocabulary} that holds a host. */
public final class SiteIndex {
  private final Map<String, List<Integer>> inside = new HashMap<>(); // numbers by pattern
  private final Map<String, Integer> numbers = new HashMap<>();

  /** O(length of all values). */
  public SiteIndex(List<String> values) {
    for (int i = 0; i < values.size(); i++) {
      numbers.put(values.get(i), i);
      String own = SiteVocabulary.pattern(values.get(i));
      if (SitePattern.isOne(own)) {
        for (String wider : SitePattern.parse(own).wider()) {
          inside.computeIfAbsent(wider, w -> new ArrayList<>()).add(i);
        }
      }
    }
  }

  /**
   * Numbers of the values that some hosts can have: those that lie in one of them, and the
   * narrowest that holds it; O(length of the hosts and of the outcome).
   *
   * @param hosts as a catalogue gives them
   */
  public IntSet at(List<String> hosts) {
    IntSet out = IntSet.EMPTY;
    Set<String> known = numbers.keySet();
    for (String host : hosts) {
      IntSet.Builder some = new IntSet.Builder();
      inside.getOrDefault(host, List.of()).forEach(i -> some.addInOrder(i, i));
      out = out.union(some.build());
      Integer around = SiteVocabulary.value(host, known).map(numbers::get).orElse(null);
      if (around != null) {
        out = out.union(IntSet.of(around));
      }
    }
    return out;
  }
}
