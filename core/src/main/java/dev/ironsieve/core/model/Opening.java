package dev.ironsieve.core.model;

import java.util.Locale;

/** Whether encrypted connections that a rule decides are decrypted for inspection. */
public enum Opening {
  /** Left alone: what shows only inside is not seen. */
  SEALED,
  OPENED;

  /** The word that people read and documents carry. */
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }
}
