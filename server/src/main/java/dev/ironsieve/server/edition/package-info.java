/** Keeping dated editions of what rules speak of: the catalogue, the directory. */
package dev.ironsieve.server.edition;
