/**
 * The vocabularies that are derived from rules and objects: sites, times, device states and file
 * kinds, each cut into values that no rule tells apart; and how the value of a connection is found.
 */
package dev.ironsieve.core.vocabulary;
