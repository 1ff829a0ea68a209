/** The people who are signed in at each address, reported by RADIUS or REST. */
package dev.ironsieve.server.presence;
