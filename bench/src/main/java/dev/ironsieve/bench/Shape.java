package dev.ironsieve.bench;

/** Kinds of generated rulebases. */
public enum Shape {
  /** Like a tidy company: most rules are narrow, groups nest, few rules overlap. */
  EASY,
  /** Wide rules among narrow ones, and groups that are random subsets: much overlaps. */
  HARD,
  /**
   * Made to hurt: no zones, and runs of rules with random subsets in several dimensions that nearly
   * cover the wide rule after them.
   */
  ADVERSARIAL
}
