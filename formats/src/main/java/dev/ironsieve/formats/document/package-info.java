/**
 * Our own JSON document of a rulebase, as records that mirror it member by member, and the way
 * between them and the model. The server speaks the same records.
 */
package dev.ironsieve.formats.document;
