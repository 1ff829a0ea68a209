/**
 * The application catalogue: what applications there are in one edition, what rules can say of
 * them, and what another edition changes.
 */
package dev.ironsieve.core.catalogue;
