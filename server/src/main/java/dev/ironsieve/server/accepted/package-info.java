/** Accepted findings: each has a reason, and counts again when a rule changes or on a date. */
package dev.ironsieve.server.accepted;
