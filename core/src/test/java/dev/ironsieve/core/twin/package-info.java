/** Slow and obvious twins of what the core does cleverly, and the small worlds they work in. */
package dev.ironsieve.core.twin;
