/** The server: each feature in a package of its own, from its HTTP resource down to its SQL. */
package dev.ironsieve.server;
