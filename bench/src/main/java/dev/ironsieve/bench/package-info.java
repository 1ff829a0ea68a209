/** Benchmarks (JMH), each with a peer in the same run, and the generator that feeds them. */
package dev.ironsieve.bench;
