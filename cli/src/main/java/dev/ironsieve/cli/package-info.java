/** The command line: the core and the formats on files, without a server. */
package dev.ironsieve.cli;
