package dev.ironsieve.core.catalogue;

/**
 * A feature of an application: one thing that people do with it, such as posting.
 *
 * @param seenSealed whether it differs from the application's other use while the connection stays
 *     encrypted
 */
public record Feature(String name, boolean seenSealed) {
  /** Stands for all use of an application outside its features. */
  public static final String OTHER_USE = "other use";

  public Feature {
    CatalogueNames.check("feature", name);
    if (name.equals(OTHER_USE)) {
      throw CatalogueNames.reserved("feature", name);
    }
  }
}
