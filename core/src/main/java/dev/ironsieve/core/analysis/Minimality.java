package dev.ironsieve.core.analysis;

/** How much is proven about a set of rules that cause something. */
public enum Minimality {
  /** No smaller set of rules causes it. */
  SMALLEST,
  /** Without any one of them it would not hold; whether there is a smaller set was not settled. */
  IRREDUCIBLE,
  /** They cause it together; the work limit was reached before it was known which are needed. */
  UNPROVEN
}
