/** Connections as comma-separated values (RFC 4180). */
package dev.ironsieve.formats.csv;
