/**
 * Whether boxes together hold all of another: the exact search behind every answer, on a budget.
 */
package dev.ironsieve.core.cover;
