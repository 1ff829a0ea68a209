/** Captures and recent connections on which signatures are tried: recognised, never stored. */
package dev.ironsieve.server.capture;
