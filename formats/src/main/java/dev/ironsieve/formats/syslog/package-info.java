/**
 * Syslog: messages (RFC 5424), their framing on TCP (RFC 6587), and the records of connections and
 * counts of hits that gateways report in structured data.
 */
package dev.ironsieve.formats.syslog;
