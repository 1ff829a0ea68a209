package dev.ironsieve.core.model;

import java.util.Optional;

/** The values that stand for nothing known: nobody signed in, an unknown device and the like. */
public final class Defaults {
  /** The value of a connection that nobody who is signed in opens. */
  public static final String NOBODY = "nobody signed in";

  /** The value of a connection whose application is not recognised. */
  public static final String UNIDENTIFIED = "unidentified";

  /** The value of a connection from a device of which the gateway knows nothing. */
  public static final String UNKNOWN_DEVICE = "unknown device";

  /** The value of a connection that asks for no host. */
  public static final String NO_SITE = "no host";

  /** The value of a connection that moves no file. */
  public static final String NO_FILE = "no file";

  private Defaults() {}

  /**
   * The value that a connection has of which nothing is known; nothing where there is no such
   * value, as for the time.
   */
  public static Optional<String> of(Coordinate coordinate) {
    return switch (coordinate) {
      case PERSON -> Optional.of(NOBODY);
      case DEVICE -> Optional.of(UNKNOWN_DEVICE);
      case SITE -> Optional.of(NO_SITE);
      case APPLICATION -> Optional.of(UNIDENTIFIED);
      case FILE_KIND -> Optional.of(NO_FILE);
      case TIME -> Optional.empty();
    };
  }

  /** Whether a text names the value of a coordinate of which nothing is known. */
  public static boolean isNamed(Coordinate coordinate, String text) {
    return of(coordinate).filter(value -> Names.key(value).equals(Names.key(text))).isPresent();
  }
}
