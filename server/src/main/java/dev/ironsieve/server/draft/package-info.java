/** Drafts: changes on top of a revision, the live engine over them, and what its views are told. */
package dev.ironsieve.server.draft;
