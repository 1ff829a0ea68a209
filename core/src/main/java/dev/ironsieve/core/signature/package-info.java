/**
 * Telling applications by what their connections say first: signatures, and the recogniser that
 * holds many of them against one connection. Nothing here throws on bytes from the wire.
 */
package dev.ironsieve.core.signature;
