package dev.ironsieve.core.model;

import java.util.Optional;

/** The values that stand for nothing known: nobody signed in, an unknown device and the like. */
public final class Defaults {
  /** The value of a connection that nobody who is signed in opens. */
  public static final String NOBODY = "nobody signed in";

  /** The value of a connection whose application is not recognised. */
  public static final String UNIDENTIFIED = "unidentified";

  private Defaults() {}

  /**
   * The value that a connection has of which nothing is known; nothing where there is no such
   * value, as for the time.
   */
  public static Optional<String> of(Coordinate coordinate) {
    return switch (coordinate) {
      case PERSON -> Optional.of(NOBODY);
      case DEVICE -> Optional.of(DeviceVocabulary.UNKNOWN);
      case SITE -> Optional.of(SiteVocabulary.NONE);
      case APPLICATION -> Optional.of(UNIDENTIFIED);
      case FILE_KIND -> Optional.of(FileKinds.NONE);
      case TIME -> Optional.empty();
    };
  }
}
