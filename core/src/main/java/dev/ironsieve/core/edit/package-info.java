/**
 * Changes to a rulebase as values. Each can be applied, lists the parts that it touches, and has an
 * inverse.
 */
package dev.ironsieve.core.edit;
