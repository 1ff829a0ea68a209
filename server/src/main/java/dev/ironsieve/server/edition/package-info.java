/** Storage of dated editions of the sources that rules use: the catalogue, the directory. */
package dev.ironsieve.server.edition;
