/**
 * The YANG data model for network access control lists of RFC 8519 in its JSON encoding (RFC 7951),
 * for the part that both it and a rulebase can say.
 */
package dev.ironsieve.formats.rfc8519;
