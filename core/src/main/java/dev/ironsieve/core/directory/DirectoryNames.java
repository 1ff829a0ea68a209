package dev.ironsieve.core.directory;

import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;

/** Checks the names of people, groups and attributes of a directory: any visible text. */
final class DirectoryNames {
  private static final int MAX_ID = 1000;

  private DirectoryNames() {}

  static void check(String place, String text) {
    check(place, text, Names.MAX_NAME);
  }

  static void checkId(String place, String id) {
    check(place, id, MAX_ID);
  }

  private static void check(String place, String text, int most) {
    if (text == null || text.isBlank() || text.length() > most || !Names.isPrintable(text)) {
      throw new InvalidModel(
          place,
          "1 to " + most + " characters on one line",
          text == null ? "nothing" : '"' + text.substring(0, Math.min(text.length(), 60)) + '"');
    }
  }
}
