package dev.ironsieve.formats.catalogue;

import java.util.List;

/**
 * One edition of the application catalogue.
 *
 * @param ironSieveCatalogue version of the format, 1
 * @param edition such as {@code 2026-11}
 */
public record CatalogueDocument(
    Integer ironSieveCatalogue, String edition, List<ApplicationDocument> applications) {
  /** The version of the format that this reads and writes. */
  public static final int VERSION = 1;

  /**
   * One application.
   *
   * @param ports services such as {@code tcp/443}
   * @param hosts names of its servers, exact or with a leading {@code *.}
   */
  public record ApplicationDocument(
      String name,
      String summary,
      String category,
      List<String> tags,
      Integer risk,
      Integer usefulness,
      List<String> ports,
      List<String> hosts,
      List<String> needs,
      List<String> carries,
      List<FeatureDocument> features,
      List<SignatureDocument> signatures) {}

  /**
   * One feature.
   *
   * @param seenSealed whether it shows while the connection stays encrypted; no if left out
   */
  public record FeatureDocument(String name, Boolean seenSealed) {}
}
