package dev.ironsieve.core.sets;

/**
 * Thrown if a text from a person or a file cannot be parsed: has the place in the text, the
 * expected and the found value.
 */
public final class InvalidText extends RuntimeException {
  private static final int SHOWN = 80;

  private final int offset;
  private final String expected;
  private final String found;

  /**
   * @param offset index of the first offending character, 0 to the text's length
   * @param expected what would have been right, as a noun phrase
   * @param found what stands there
   */
  public InvalidText(int offset, String expected, String found) {
    super("at character " + (offset + 1) + ": expected " + expected + ", found " + shown(found));
    this.offset = offset;
    this.expected = expected;
    this.found = found;
  }

  /** Index of the first offending character, counted from 0. */
  public int offset() {
    return offset;
  }

  public String expected() {
    return expected;
  }

  public String found() {
    return found;
  }

  /** The same complaint about text that starts {@code by} characters into a longer one. */
  public InvalidText shifted(int by) {
    return new InvalidText(offset + by, expected, found);
  }

  private static String shown(String found) {
    if (found.isEmpty()) {
      return "nothing";
    }
    return "\"" + (found.length() > SHOWN ? found.substring(0, SHOWN) + "…" : found) + "\"";
  }
}
