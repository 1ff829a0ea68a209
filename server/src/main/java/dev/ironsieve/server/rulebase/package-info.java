/** Rulebases as wholes: making, listing, reading in and writing out. */
package dev.ironsieve.server.rulebase;
