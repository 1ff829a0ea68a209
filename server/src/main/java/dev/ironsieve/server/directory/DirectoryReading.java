package dev.ironsieve.server.directory;

import java.time.Instant;

/**
 * One attempt to read the directory.
 *
 * @param snapshot the snapshot that holds from then on, or null if the try failed
 * @param fault why it failed, or null
 */
public record DirectoryReading(Instant at, String snapshot, String fault) {}
