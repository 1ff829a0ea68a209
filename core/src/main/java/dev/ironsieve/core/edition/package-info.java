/**
 * What another edition of a source changes: of the things in it, and of the rules that speak of
 * them. Sources are the application catalogue and the directory of people.
 */
package dev.ironsieve.core.edition;
