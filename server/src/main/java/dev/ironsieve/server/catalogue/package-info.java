/** Editions of the application catalogue: imported, listed, compared. */
package dev.ironsieve.server.catalogue;
