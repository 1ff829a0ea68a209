/** Flow records as IPFIX messages (RFC 7011), which other collectors read. */
package dev.ironsieve.formats.ipfix;
