/**
 * The analysis of a rulebase: the connections that each rule decides, and findings. Exact over the
 * whole space of feasible connections, within a budget of work; past it a rule is undecided, never
 * guessed.
 */
package dev.ironsieve.core.analysis;
