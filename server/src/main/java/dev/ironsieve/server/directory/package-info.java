/** The directory of people, read over LDAP into snapshots that never change. */
package dev.ironsieve.server.directory;
