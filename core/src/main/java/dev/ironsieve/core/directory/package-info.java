/**
 * People and their groups as a directory told them at one time, and what rules can say of them. A
 * snapshot is an edition of the person vocabulary.
 */
package dev.ironsieve.core.directory;
