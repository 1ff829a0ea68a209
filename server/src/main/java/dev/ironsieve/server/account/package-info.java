/** Who may do what: accounts, sign-in, sessions, roles. */
package dev.ironsieve.server.account;
