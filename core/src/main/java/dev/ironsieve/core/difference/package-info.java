/**
 * The difference of two rulebases: the connections that get another verdict, another rule or
 * another log, as disjoint boxes with examples.
 */
package dev.ironsieve.core.difference;
