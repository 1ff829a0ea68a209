package dev.ironsieve.formats;

import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.sets.InvalidText;
import java.util.function.Supplier;

/** Makes things of the model from a document, and says where in the document what could not be. */
public final class Checked {
  private Checked() {}

  /**
   * What is made from the document at a path.
   *
   * @param path JSON path, for the complaint
   * @throws InvalidDocument if it cannot stand
   */
  public static <T> T at(String path, Supplier<T> made) {
    try {
      return made.get();
    } catch (InvalidModel e) {
      throw new InvalidDocument(path, e.expected() + " (" + e.place() + ")", e.found());
    } catch (InvalidText e) {
      throw new InvalidDocument(
          path,
          e.expected(),
          (e.found().isEmpty() ? "nothing" : '"' + e.found() + '"')
              + " at character "
              + (e.offset() + 1));
    }
  }
}
