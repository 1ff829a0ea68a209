package dev.ironsieve.core.model;

import java.util.Locale;

/**
 * The coordinates of a connection with named values from outside: from a directory, a catalogue, a
 * feed. A {@link Vocabulary} lists the values.
 */
public enum Coordinate {
  /** The person who opens the connection; one value may stand for nobody signed in. */
  PERSON,
  /** The device: one value for each combination of its state facts. */
  DEVICE,
  /** The host asked for, with the part of the path that rules tell apart. */
  SITE,
  /** An application with one of its features. */
  APPLICATION,
  /** The kind of the file that is moved, or none. */
  FILE_KIND,
  /** The moment, as a slice of the week. */
  TIME;

  /** The word that people read. */
  public String word() {
    return name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }
}
