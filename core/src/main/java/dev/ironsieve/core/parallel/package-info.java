/** Work on several threads. */
package dev.ironsieve.core.parallel;
