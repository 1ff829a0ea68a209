/**
 * Changes to a rulebase as values: each can be applied, says what it touches, and knows the change
 * that takes it back.
 */
package dev.ironsieve.core.edit;
