/**
 * The rules of one rulebase in their order, laid into the space, with indexes for the two questions
 * that everything else asks: which rule decides a point, and which rules meet a box. An edit
 * changes them in place.
 */
package dev.ironsieve.core.ruleindex;
