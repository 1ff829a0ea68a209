package dev.ironsieve.formats;

import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.sets.InvalidText;
import java.util.function.Supplier;

/** Converts parts of a document into the model, and collects the faults with their places. */
public final class Checked {
  private Checked() {}

  /**
   * A part of the model, made from the document at a path.
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
