/** The lines of text in which people say connections. */
package dev.ironsieve.core.text;
