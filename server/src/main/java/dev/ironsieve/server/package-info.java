/** The server: a package for each feature, from its HTTP resource down to its SQL. */
package dev.ironsieve.server;
