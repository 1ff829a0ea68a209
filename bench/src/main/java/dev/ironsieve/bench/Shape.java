package dev.ironsieve.bench;

/** Kinds of generated rulebases. */
public enum Shape {
  /** Like a tidy company: most rules are narrow, groups nest, few rules overlap. */
  EASY,
  /** Wide rules among narrow ones, and groups that are random subsets: much overlaps. */
  HARD,
  /**
   * Made to hurt: no zones, and runs of rules with random subsets in several dimensions that nearly
   * cover the wide rule after them. Some are knots: each rule asks for three bits at random of what
   * identifies a person, a site and so on, so that whether anything is left for the wide rule is a
   * question of satisfiability, near where it is hardest (Mitchell, Selman, Levesque: Hard and Easy
   * Distributions of SAT Problems, AAAI 1992).
   */
  ADVERSARIAL
}
