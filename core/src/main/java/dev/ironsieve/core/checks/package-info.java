/**
 * Saved connections with the verdict that they must get: which ones to make so that every rule and
 * every corner is touched, and what mistakes a set of them would notice.
 */
package dev.ironsieve.core.checks;
