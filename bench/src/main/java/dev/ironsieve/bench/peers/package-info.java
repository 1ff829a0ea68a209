/**
 * Other ways to find out whether a rule still decides anything, to compare with: independent of the
 * analysis, and much slower.
 */
package dev.ironsieve.bench.peers;
