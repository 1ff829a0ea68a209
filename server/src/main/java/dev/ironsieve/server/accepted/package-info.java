/** Findings that somebody accepted with a reason, until a rule changes or a date comes. */
package dev.ironsieve.server.accepted;
