/** Accounts, sign-in, sessions and roles. */
package dev.ironsieve.server.account;
