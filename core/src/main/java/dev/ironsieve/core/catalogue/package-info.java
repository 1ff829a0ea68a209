/**
 * The application catalogue: the applications of one edition, the vocabulary that rules use for
 * them, and the changes between two editions.
 */
package dev.ironsieve.core.catalogue;
