/** Objects with the same meaning under different names. */
package dev.ironsieve.core.equivalence;
