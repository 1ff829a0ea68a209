package dev.ironsieve.server.edition;

import java.time.Instant;

/**
 * The row of an edition, without its contents.
 *
 * @param by who imported it; null if nobody did it by hand
 */
public record StoredEdition(long id, String name, Instant importedAt, String by) {}
