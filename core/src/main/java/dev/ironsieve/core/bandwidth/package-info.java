/** Bandwidth that rate plans reserve. */
package dev.ironsieve.core.bandwidth;
