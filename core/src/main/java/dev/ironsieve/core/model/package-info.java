/**
 * Zones, objects and rules in sections, as people write them. Every value that exists is valid by
 * itself; a {@link dev.ironsieve.core.rulebase.Rulebase} is valid as a whole.
 */
package dev.ironsieve.core.model;
