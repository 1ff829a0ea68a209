package dev.ironsieve.core.model;

import java.util.Locale;

/** The points of a connection at which the rule that decides it writes a log line. */
public enum Logging {
  OFF,
  START,
  END,
  BOTH;

  /** The word that people read and documents carry. */
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }
}
