/** The audit trail: who did what, and when; entries are only ever added. */
package dev.ironsieve.server.audit;
