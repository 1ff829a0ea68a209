package dev.ironsieve.core.model;

import java.util.Locale;

/**
 * A limit and a reservation of bandwidth for the connections of some rules.
 *
 * @param ceiling the limit; null for none
 * @param floor the reservation; null for none. At least one of the two is given
 * @param counted the group of connections to which each of these applies
 * @param mostAtOnce the number of source addresses with a reservation at a time, 1 to {@value
 *     #MOST_SOURCES}; null unless counted for each source address
 */
public record RatePlan(
    String name, Rate ceiling, Rate floor, Counted counted, Integer mostAtOnce, String note) {
  /** Most source addresses at once. */
  public static final int MOST_SOURCES = 1_000_000;

  /** The group of connections that shares a ceiling or a floor. */
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
      throw new InvalidModel(place, "all rules, each rule or each source", "nothing");
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
