/**
 * People and their groups as read from a directory at one time, and the vocabulary that rules use
 * for them. A snapshot is an edition of the person vocabulary.
 */
package dev.ironsieve.core.directory;
