/**
 * A rulebase: sections of rules in order, with the zones, objects, vocabularies and settings that
 * they name. One that exists is valid.
 */
package dev.ironsieve.core.rulebase;
