package dev.ironsieve.core.difference;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/**
 * Two states of a rulebase over the same connections: where their editions differ, the vocabularies
 * of both get the values of both. The rules mean the same as before.
 *
 * @param before the earlier state
 * @param after the later state
 */
public record SharedValues(Rulebase before, Rulebase after) {

  /**
   * Gives two states the same values.
   *
   * @return empty if they have no connections in common: their zones, or with them the networks, or
   *     their time zones differ
   */
  public static Optional<SharedValues> of(Rulebase before, Rulebase after) {
    boolean sameZones = before.zones().equals(after.zones());
    boolean sameTime =
        before.gatewaySettings().timeZone().equals(after.gatewaySettings().timeZone());
    if (!sameZones || !sameTime) {
      return Optional.empty();
    }
    Rulebase old = before;
    Rulebase now = after;
    for (Coordinate coordinate : pinned(before, after)) {
      Optional<Vocabulary> was = pinned(before, coordinate);
      Optional<Vocabulary> is = pinned(after, coordinate);
      if (was.equals(is)) {
        continue;
      }
      List<String> values =
          was.isPresent() && is.isPresent()
              ? is.get().valuesWith(was.get())
              : was.or(() -> is).orElseThrow().values();
      old = with(old, was.or(() -> is).orElseThrow(), values);
      now = with(now, is.or(() -> was).orElseThrow(), values);
    }
    return Optional.of(new SharedValues(old, now));
  }

  private static Rulebase with(Rulebase rulebase, Vocabulary vocabulary, List<String> values) {
    return new Edit.PutVocabulary(vocabulary.over(values)).apply(rulebase);
  }

  private static Set<Coordinate> pinned(Rulebase before, Rulebase after) {
    Set<Coordinate> out = EnumSet.noneOf(Coordinate.class);
    Stream.concat(before.pinned().stream(), after.pinned().stream())
        .map(Vocabulary::coordinate)
        .forEach(out::add);
    return out;
  }

  private static Optional<Vocabulary> pinned(Rulebase rulebase, Coordinate coordinate) {
    return rulebase.pinned().stream().filter(v -> v.coordinate() == coordinate).findFirst();
  }
}
