/** Captures on which signatures are tried: brought in, recognised, never stored. */
package dev.ironsieve.server.capture;
