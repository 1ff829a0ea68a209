/**
 * The way to PostgreSQL: transactions, and statements that say what they are for when they fail.
 */
package dev.ironsieve.server.jdbc;
