package dev.ironsieve.formats;

/**
 * A fault in a document: its place, what was expected and what was found.
 *
 * @param path where, as a JSON path such as {@code $.sections[2].rules[0].name}, or {@code line 3,
 *     column 7} if the text is no JSON at all
 * @param expected what would have been right
 * @param found what stands there
 */
public record Fault(String path, String expected, String found) {
  @Override
  public String toString() {
    return path + ": expected " + expected + ", found " + found;
  }
}
