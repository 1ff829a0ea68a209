package dev.ironsieve.core.model;

import java.util.Collections;
import java.util.EnumSet;
import java.util.Set;

/**
 * When a rule that allows is too broad: if it narrows none of what counts, and its ends have at
 * least so many addresses.
 *
 * @param counting what excuses a rule that narrows it
 * @param addresses fewest addresses that both its ends have to have; 1 for any ends
 */
public record Breadth(Set<Dimension> counting, long addresses) {
  /** The coordinates that a rule can narrow. */
  public enum Dimension {
    PEOPLE(Coordinate.PERSON),
    APPLICATIONS(Coordinate.APPLICATION),
    SITES(Coordinate.SITE),
    SERVICES(null),
    DEVICES(Coordinate.DEVICE),
    TIMES(Coordinate.TIME),
    FILE_KINDS(Coordinate.FILE_KIND);

    private final Coordinate coordinate;

    Dimension(Coordinate coordinate) {
      this.coordinate = coordinate;
    }

    /** The coordinate whose values it narrows; null for services. */
    public Coordinate coordinate() {
      return coordinate;
    }
  }

  /** People, applications, sites and services count, whatever the ends. */
  public static final Breadth DEFAULT =
      new Breadth(
          EnumSet.of(Dimension.PEOPLE, Dimension.APPLICATIONS, Dimension.SITES, Dimension.SERVICES),
          1);

  public Breadth {
    if (counting.isEmpty()) {
      throw new InvalidModel("too broad", "at least one part that counts", "none");
    }
    if (addresses < 1) {
      throw new InvalidModel("too broad", "at least 1 address", addresses + "");
    }
    counting = Collections.unmodifiableSet(EnumSet.copyOf(counting));
  }
}
