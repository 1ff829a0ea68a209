package dev.ironsieve.core.model;

import java.util.Locale;

/** The verdict of a rule on the connections that it decides. */
public enum Verdict {
  ALLOW,
  /** Refuse silently. */
  DROP,
  /** Refuse and tell the sender. */
  REJECT,
  /** Show a notice; the person may go on. */
  CAUTION;

  /** Whether a connection may go on with it. */
  public boolean letsThrough() {
    return this == ALLOW || this == CAUTION;
  }

  /** The word that people read and documents carry. */
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }
}
