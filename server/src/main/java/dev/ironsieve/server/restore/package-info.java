/** Revisions and named states to which a draft can be taken back. */
package dev.ironsieve.server.restore;
