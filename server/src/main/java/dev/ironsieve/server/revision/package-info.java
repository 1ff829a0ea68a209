/** Revisions: the review of a draft against the revision in force, and its publication. */
package dev.ironsieve.server.revision;
