/**
 * What people write: zones, objects, rules in sections, as they were written. Every value that
 * exists is valid by itself; a {@link dev.ironsieve.core.rulebase.Rulebase} is valid as a whole.
 */
package dev.ironsieve.core.model;
