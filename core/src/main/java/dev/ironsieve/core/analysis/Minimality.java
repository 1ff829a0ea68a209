package dev.ironsieve.core.analysis;

/** The proven property of a set of causes: smallest, irreducible, or neither. */
public enum Minimality {
  /** No smaller set of rules causes it. */
  SMALLEST,
  /** Without any one of them it would not hold; whether there is a smaller set was not settled. */
  IRREDUCIBLE,
  /** They cause it together; the work limit was reached before it was known which are needed. */
  UNPROVEN
}
