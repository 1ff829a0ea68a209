/** The overview of a rulebase: what needs attention, for the first page. */
package dev.ironsieve.server.overview;
