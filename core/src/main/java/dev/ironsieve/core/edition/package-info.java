/**
 * The changes between two editions of a source: of its entries, and of the rules that use them.
 * Sources are the application catalogue and the directory of people.
 */
package dev.ironsieve.core.edition;
