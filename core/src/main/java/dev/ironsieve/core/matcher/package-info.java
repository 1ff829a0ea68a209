/** First match: which rule decides a connection, and why each rule above it did not. */
package dev.ironsieve.core.matcher;
