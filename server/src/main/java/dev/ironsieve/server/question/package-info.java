/** Work that takes long, kept away from edits: a bounded pool with a deadline and limits. */
package dev.ironsieve.server.question;
