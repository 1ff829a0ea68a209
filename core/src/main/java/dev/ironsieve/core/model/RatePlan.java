package dev.ironsieve.core.model;

import java.util.Locale;

/**
 * How much of the line the connections of some rules may have, and are kept.
 *
 * @param ceiling the most that they get; null for no limit
 * @param floor what is kept for them; null for nothing. There is one or the other, or both
 * @param counted for whom each of these is
 * @param mostAtOnce where it is for each source address: for how many at once it is kept, 1 to
 *     {@value #MOST_SOURCES}; null otherwise
 */
public record RatePlan(
    String name, Rate ceiling, Rate floor, Counted counted, Integer mostAtOnce, String note) {
  /** Most source addresses at once. */
  public static final int MOST_SOURCES = 1_000_000;

  /** For whom a ceiling or a floor is. */
  public enum Counted {
    /** Shared by everything that any rule with the plan lets through. */
    ALL_RULES,
    /** For each rule with the plan by itself. */
    EACH_RULE,
    /** For each source address by itself, whichever rules let it through. */
    EACH_SOURCE;

    public String word() {
      return name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }
  }

  public RatePlan {
    Names.checkObject("rate plan", name);
    Names.checkNote(note);
    String place = "rate plan \"" + name + "\"";
    if (ceiling == null && floor == null) {
      throw new InvalidModel(place, "a ceiling, a floor, or both", "neither");
    }
    if (ceiling != null && floor != null && floor.compareTo(ceiling) > 0) {
      throw new InvalidModel(place, "a floor of at most the ceiling, " + ceiling, floor.toString());
    }
    if (counted == null) {
      throw new InvalidModel(place, "for whom it is counted", "nothing");
    }
    boolean each = counted == Counted.EACH_SOURCE;
    if (each && (mostAtOnce == null || mostAtOnce < 1 || mostAtOnce > MOST_SOURCES)) {
      throw new InvalidModel(
          place,
          "for how many source addresses at once, 1 to " + MOST_SOURCES,
          mostAtOnce == null ? "nothing" : mostAtOnce + "");
    }
    if (!each && mostAtOnce != null) {
      throw new InvalidModel(
          place, "a number of source addresses only where each counts", mostAtOnce + "");
    }
  }
}
