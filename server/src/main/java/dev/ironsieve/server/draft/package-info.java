/**
 * Drafts: changes on top of a revision, the live engine over them, and the events for their views.
 */
package dev.ironsieve.server.draft;
