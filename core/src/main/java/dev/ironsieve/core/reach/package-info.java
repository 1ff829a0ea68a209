/**
 * Reach questions: who can reach this, what can this person reach, what decides between these two.
 */
package dev.ironsieve.core.reach;
