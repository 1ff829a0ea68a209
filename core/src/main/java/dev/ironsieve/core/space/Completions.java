package dev.ironsieve.core.space;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.IntSet;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;

/**
 * All feasible completions of an incomplete connection, as boxes of a space.
 *
 * @param said the incomplete connection
 * @param boxes disjoint; none if no completion is feasible
 */
public record Completions(Connection said, List<Box> boxes) {

  /** The possible values of a coordinate. */
  public interface Values {
    /** Numbers of values of a vocabulary, by its place among them; null if any value may be. */
    IntSet of(int vocabulary);
  }

  /** The completions of an incomplete connection. */
  public static Completions of(Connection said, Space space, Resolution resolution) {
    return of(
        said,
        space,
        resolution,
        vocabulary -> {
          Coordinate coordinate = resolution.vocabularies().get(vocabulary).coordinate();
          int value = resolution.valueNumber(vocabulary, said.terms().get(coordinate));
          return value < 0 ? null : IntSet.of(value);
        });
  }

  /** The same, with other possible values in some vocabularies. */
  public static Completions of(Connection said, Space space, Resolution resolution, Values values) {
    List<Box> out = new ArrayList<>();
    for (Family family : Family.values()) {
      IntSet[] sides = new IntSet[space.axes()];
      sides[Space.FROM] = end(Space.FROM, family, said.from(), space, resolution);
      sides[Space.TO] = end(Space.TO, family, said.to(), space, resolution);
      if (sides[Space.FROM].isEmpty() || sides[Space.TO].isEmpty()) {
        continue;
      }
      sides[Space.SERVICE] = space.possibleServices(said);
      sides[Space.SOURCE_PORT] = space.possibleSourcePorts(said);
      for (int i = Space.TERMS; i < sides.length; i++) {
        IntSet some = values.of(i - Space.TERMS);
        sides[i] = some == null ? space.all(i) : space.touching(i, some);
      }
      space.feasible(new Box(sides)).ifPresent(out::add);
    }
    return new Completions(said, List.copyOf(out));
  }

  private static IntSet end(
      int axis, Family family, Endpoint end, Space space, Resolution resolution) {
    return space.possible(axis, family, resolution.zoneNumber(end.zone()), end.address());
  }

  /** Whether an axis may have several classes. */
  public boolean isFree(int axis, Space space) {
    return boxes.size() > 1 && axis <= Space.TO
        || boxes.stream().anyMatch(box -> space.count(axis, box.side(axis)) > 1);
  }

  /** The complete connection at a point of these; it keeps every value of the incomplete one. */
  public Connection at(int[] point, Space space) {
    Connection some = space.connection(point, said.protocol());
    Map<Coordinate, String> terms = new EnumMap<>(Coordinate.class);
    terms.putAll(some.terms());
    terms.putAll(said.terms());
    boolean service = said.detail() >= 0;
    return new Connection(
        end(said.from(), some.from()),
        end(said.to(), some.to()),
        service ? said.protocol() : some.protocol(),
        service ? said.detail() : some.detail(),
        said.sourcePort() >= 0 ? said.sourcePort() : some.sourcePort(),
        terms);
  }

  private static Endpoint end(Endpoint said, Endpoint some) {
    return new Endpoint(
        said.zone() != null ? said.zone() : some.zone(),
        said.address() != null ? said.address() : some.address());
  }
}
