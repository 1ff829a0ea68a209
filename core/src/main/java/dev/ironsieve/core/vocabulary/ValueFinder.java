package dev.ironsieve.core.vocabulary;

import dev.ironsieve.core.model.Vocabulary;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;

/**
 * Finds the value of a vocabulary that a text names. The index is built at the first look-up.
 * Several threads may look up at once.
 */
public final class ValueFinder {
  /** So many answers are remembered; those that are asked for often are among them soon. */
  private static final int MOST_REMEMBERED = 10_000;

  private final Vocabulary vocabulary;
  private final Map<String, Optional<String>> remembered = new ConcurrentHashMap<>(); // by said
  private volatile Function<String, Optional<String>> finding; // null until it is needed

  public ValueFinder(Vocabulary vocabulary) {
    this.vocabulary = vocabulary;
  }

  /**
   * The name of the value of a connection: a value by its name, or, for sites, times and devices,
   * the value that contains the text, such as {@code *.quay.example} for {@code www.quay.example};
   * empty if there is none. O(values) the first time a text is asked for.
   */
  public Optional<String> value(String said) {
    Optional<String> before = remembered.get(said);
    if (before != null) {
      return before;
    }
    Function<String, Optional<String>> known = finding;
    if (known == null) {
      known = made();
      finding = known; // Two threads may make the same; that is all.
    }
    Optional<String> value = known.apply(said);
    if (remembered.size() < MOST_REMEMBERED) {
      remembered.put(said, value);
    }
    return value;
  }

  private Function<String, Optional<String>> made() {
    Set<String> names = Set.copyOf(vocabulary.values());
    Function<String, Optional<String>> inside =
        switch (vocabulary.coordinate()) {
          case SITE -> said -> SiteVocabulary.value(said, names);
          case TIME -> new TimeIndex(vocabulary.values())::value;
          case DEVICE -> new DeviceIndex(vocabulary.values())::value;
          case PERSON, APPLICATION, FILE_KIND -> said -> Optional.empty();
        };
    return said -> names.contains(said) ? Optional.of(said) : inside.apply(said);
  }
}
