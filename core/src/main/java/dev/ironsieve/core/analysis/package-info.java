/**
 * What each rule still decides. Exact over the whole space of feasible connections, within a budget
 * of work; past it a rule is undecided, never guessed.
 */
package dev.ironsieve.core.analysis;
