package dev.ironsieve.formats.document;

/**
 * A rate plan: a limit and a floor of bandwidth.
 *
 * @param ceiling the most that they get, such as {@code 20 Mbit/s}; no limit if left out
 * @param floor the guaranteed rate; none if left out
 * @param counted {@code all rules}, {@code each rule} or {@code each source}
 * @param mostAtOnce for how many source addresses at once, if it is for each
 * @param note empty if left out
 */
public record RatePlanDocument(
    String name, String ceiling, String floor, String counted, Integer mostAtOnce, String note) {}
