package dev.ironsieve.core.model;

/** A part of a rulebase is invalid: names the part, the expected and the found value. */
public final class InvalidModel extends RuntimeException {
  private final String place;
  private final String expected;
  private final String found;

  /**
   * @param place the offending part in the words of the interface, such as {@code rule "DNS": name}
   * @param expected what would have been right
   * @param found what stands there
   */
  public InvalidModel(String place, String expected, String found) {
    super(place + ": expected " + expected + ", found " + found);
    this.place = place;
    this.expected = expected;
    this.found = found;
  }

  public String place() {
    return place;
  }

  public String expected() {
    return expected;
  }

  public String found() {
    return found;
  }
}
