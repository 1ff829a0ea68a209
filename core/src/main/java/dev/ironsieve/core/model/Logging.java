package dev.ironsieve.core.model;

import java.util.Locale;

/** When a rule writes a log line for a connection that it decides. */
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
