/**
 * Exact finite sets of addresses, ports and class numbers, each with one canonical form, so that
 * {@code equals} is set equality. All bounds in this package are inclusive.
 */
package dev.ironsieve.core.sets;
