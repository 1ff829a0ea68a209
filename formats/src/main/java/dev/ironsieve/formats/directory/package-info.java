/** Snapshots of a directory as JSON documents, in which the server keeps them. */
package dev.ironsieve.formats.directory;
